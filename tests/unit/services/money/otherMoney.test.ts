// A document in euro: its rate, its VAT in pounds, what the bank gave for it, and the difference.
// Over 300 lines: one invoice in euro, through everything.
import { expect } from 'chai';
import { eq, sql } from 'drizzle-orm';
import { describe, it } from 'mocha';
import { documents, payments } from '../../../../src/lib/server/db/schema';
import {
	addRate,
	importRates,
	removeRate
} from '../../../../src/lib/server/services/business/exchange';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { creditPart } from '../../../../src/lib/server/services/invoices/creditNote';
import {
	beginInvoice,
	copyAsDraft,
	loadDraft,
	saveDraft
} from '../../../../src/lib/server/services/invoices/drafts';
import { sheetContext } from '../../../../src/lib/server/services/invoices/context';
import { freezeDraft, NotReadyError } from '../../../../src/lib/server/services/invoices/freeze';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { openCheckout } from '../../../../src/lib/server/services/money/checkouts';
import { payPage } from '../../../../src/lib/server/services/money/payPage';
import { recordForPayer } from '../../../../src/lib/server/services/money/payerPayments';
import { refundByHand } from '../../../../src/lib/server/services/money/refunds';
import { undoPayment } from '../../../../src/lib/server/services/money/undo';
import { writeOff } from '../../../../src/lib/server/services/money/writeOffs';
import { lateCharges } from '../../../../src/lib/server/services/owed/lateCharges';
import { owedPage } from '../../../../src/lib/server/services/owed/owed';
import {
	buildStatement,
	readStatementOptions
} from '../../../../src/lib/server/services/owed/statements';
import { profitOf, vatPeriod } from '../../../../src/lib/server/services/reports/reports';
import type { Sheet } from '../../../../src/lib/core/sheet/types';
import { expectSoundBooks } from '../../../support/books';
import { FIRM, itemOf, payByHand } from '../../../support/money';
import { line, makeWorld, type TestWorld } from '../../../support/world';

const RATE = {
	currency: 'EUR',
	from: '2026-11-01',
	to: '2026-11-30',
	rate: '0.8432',
	source: 'monthly rates'
};
const ATELIER = { ...FIRM, name: 'Atelier Marais-Lune SARL', currency: 'EUR' as const };
const PERIOD = { from: '2026-11-01', to: '2027-01-31' };

/** An invoice of € 1,000 without VAT to a customer whose money is euro. */
async function inEuro(world: TestWorld, sheet: Partial<Sheet> = {}) {
	const customerId = addCustomer(world, ATELIER);
	const id = beginInvoice(world, 'euro', customerId);
	saveDraft(world, id, 1, {
		...loadDraft(world.db, id).sheet,
		rows: [line('a', 'Advice', '1000')],
		...sheet
	});
	return { ...(await issueInvoice(world, id, 2)), customerId };
}

const withRate = (business: object = {}) => {
	const world = makeWorld(business);
	addRate(world, RATE);
	return world;
};

/** What stands in an account, in pence. */
const pence = (world: TestWorld, account: string) =>
	world.db.get<{ sum: number }>(
		sql`select coalesce(sum(sterling), 0) as sum from journal_lines where account = ${account}`
	)!.sum;

describe('an invoice in euro', () => {
	it('is in its customer’s money, at the rate of its tax point, with VAT in pounds on it', async () => {
		const world = withRate();
		const { id } = await inEuro(world);
		const row = world.db.select().from(documents).where(eq(documents.id, id)).get()!;
		expect([row.currency, row.total, row.totalSterling]).to.deep.equal(['EUR', 1200_00, 1011_84]);
		expect(row.frozen!.exchange).to.deep.equal({
			rate: '0.8432',
			source: 'monthly rates',
			net: 843_20,
			vatCharged: 168_64,
			vatReverseCharged: 0
		});
		const { view, ways, toPay } = payPage(world, row.token!);
		expect([view.sign, view.payable?.amount, toPay]).to.deep.equal(['€', '1,200.00', 1200_00]);
		expect(view.columns.map(({ title }) => title)).to.include('Amount, €');
		expect(view.totals).to.deep.include({ label: 'VAT charged, in pounds', amount: '£168.64' });
		expect(view.statements[0]).to.equal(
			'In pounds, at £0.8432 for one euro (monthly rates): £843.20 without VAT, VAT £168.64.'
		);
		expect(ways).to.deep.equal({ card: false, bank: false, transfer: true });
		expectSoundBooks(world.db);
	});

	it('is asked for its rate where none is known, and takes one for itself alone', async () => {
		const world = makeWorld();
		const customerId = addCustomer(world, ATELIER);
		const id = beginInvoice(world, 'euro', customerId);
		const sheet = { ...loadDraft(world.db, id).sheet, rows: [line('a', 'Advice', '1000')] };
		const context = sheetContext(world.db, sheet, '2026-11-24');
		expect(() => freezeDraft(sheet, context))
			.to.throw(NotReadyError)
			.with.nested.property('problems[0].path', 'exchange.rate');
		const typed = { ...sheet, exchange: { rate: '0.9', source: 'my bank' } };
		expect(freezeDraft(typed, context).frozen.exchange).to.deep.include({
			rate: '0.9',
			source: 'my bank',
			net: 900_00
		});
		for (const rate of ['0', '-1', 'x', '0.1234567'])
			expect(() => freezeDraft({ ...sheet, exchange: { rate, source: '' } }, context)).to.throw(
				NotReadyError
			);
	});

	it('is paid in parts, and what the bank gave more or less is a difference of exchange', async () => {
		const world = withRate();
		const { id } = await inEuro(world);
		payByHand(world, id, '500', { reached: '420' });
		// 500 of 1,200 euro stood at 421.60: what is left, 700, stands at 590.24.
		expect(pence(world, 'receivable')).to.equal(590_24);
		expect(pence(world, 'exchange')).to.equal(1_60);
		const rest = payByHand(world, id, '700', { reached: '595' });
		expect([
			pence(world, 'receivable'),
			pence(world, 'bank'),
			pence(world, 'exchange')
		]).to.deep.equal([0, 1015_00, -3_16]);
		expect(itemOf(world, id).state).to.equal('paid');
		const row = world.db.select().from(payments).where(eq(payments.id, rest)).get()!;
		expect([row.currency, row.amount, row.amountSterling]).to.deep.equal(['EUR', 700_00, 595_00]);
		expectSoundBooks(world.db);
		undoPayment(world, rest, 'Not ours');
		expect([
			pence(world, 'receivable'),
			pence(world, 'bank'),
			pence(world, 'exchange')
		]).to.deep.equal([590_24, 420_00, 1_60]);
		expectSoundBooks(world.db);
	});

	it('is never paid without what reached the bank, by card, or with pounds', async () => {
		const world = withRate();
		const { id, customerId } = await inEuro(world);
		const refused = (more: object, at: string) =>
			expect(() => payByHand(world, id, '100', more))
				.to.throw()
				.with.nested.property(`fields.${at}`);
		refused({}, 'reached');
		refused({ reached: '0' }, 'reached');
		refused({ reached: '84', way: 'card' }, 'way');
		recordForPayer(world, customerId, {
			key: 'pounds',
			amount: '1011.84',
			date: '2026-11-24',
			way: 'bank',
			reference: ''
		});
		expect(itemOf(world, id).outstanding).to.equal(1200_00);
		const token = world.db.select().from(documents).where(eq(documents.id, id)).get()!.token!;
		const tried = await openCheckout(world, token, 'k1').catch((error: Error) => error);
		expect(tried).to.be.instanceOf(Error);
		expectSoundBooks(world.db);
	});

	it('is credited at its own rate, given back, and given up, to the last penny', async () => {
		const world = withRate();
		const { id } = await inEuro(world);
		world.clock.set(Date.UTC(2026, 11, 10, 9));
		addRate(world, { ...RATE, from: '2026-12-01', to: '2026-12-31', rate: '0.9' });
		const note = await creditPart(world, id, {
			key: 'c1',
			reason: 'Less was done',
			again: false,
			wishes: () => [{ position: 0, amount: 333_33n }]
		});
		const credit = world.db.select().from(documents).where(eq(documents.id, note.id)).get()!;
		expect(credit.frozen!.exchange).to.deep.include({ rate: '0.8432', net: 281_06 });
		payByHand(world, id, '500', { reached: '430', date: '2026-12-10' });
		refundByHand(world, id, {
			key: 'back',
			amount: '100',
			reached: '90',
			date: '2026-12-10',
			way: 'bank',
			reference: ''
		});
		expectSoundBooks(world.db);
		writeOff(world, id, 'Gone', 'w1');
		expect([pence(world, 'receivable'), itemOf(world, id).state]).to.deep.equal([0, 'writtenOff']);
		expectSoundBooks(world.db);
	});

	it('stands in euro on a statement of its own, in pounds on Owed, and bears no interest of the Act', async () => {
		const world = withRate();
		const { id, customerId } = await inEuro(world);
		world.clock.set(Date.UTC(2027, 1, 10, 9));
		const statement = (currency: string) =>
			buildStatement(world, customerId, readStatementOptions({ asOf: '2027-02-10', currency }));
		expect(statement('EUR').view.toPay).to.equal('€1,200.00');
		expect(statement('GBP').balance).to.equal(0);
		const { owed, rows } = owedPage(world, {
			late: false,
			above: 0n,
			label: '',
			hold: '',
			typed: '',
			page: 1
		});
		expect([owed, rows[0]!.items[0]!.own]).to.deep.equal([
			1011_84n,
			{ amount: 1200_00n, currency: 'EUR' }
		]);
		expect(lateCharges(world.db, [id], '2027-02-10').size).to.equal(0);
	});

	it('counts in pounds for VAT and profit, with the difference beside', async () => {
		const world = withRate();
		const { id } = await inEuro(world);
		payByHand(world, id, '1200', { reached: '1000' });
		const { box1, box6 } = await vatPeriod(world, PERIOD, 'invoice');
		expect([box1, box6]).to.deep.equal([168_64n, 843n]);
		for (const basis of ['cash', 'invoice'] as const) {
			const { income, exchange, profit } = await profitOf(world, PERIOD, basis);
			expect([income, exchange, profit]).to.deep.equal([843_20n, -11_84n, 831_36n]);
		}
	});

	it('keeps its money when it is copied, and none where a contractor deducts', () => {
		const world = withRate();
		const customerId = addCustomer(world, ATELIER);
		const id = beginInvoice(world, 'euro', customerId);
		expect(loadDraft(world.db, copyAsDraft(world, id, 'copy')).sheet.currency).to.equal('EUR');
		expect(() =>
			addCustomer(world, {
				...ATELIER,
				kind: 'contractor',
				standing: { cisRegistered: true, cisRate: '20' }
			})
		)
			.to.throw()
			.with.nested.property('fields.currency');
	});
});

describe('the table of rates', () => {
	const csv = (rows: string) =>
		new TextEncoder().encode(
			`Country/Territories,Currency,Currency Code,Currency Units per £1,Start date,End date\n${rows}`
		);

	it('reads a month: units to the pound become pounds for one, and other money is passed over', async () => {
		const world = makeWorld();
		const file = csv(
			'Eurozone,Euro,EUR,1.1843,01/11/2026,30/11/2026\nUSA,Dollar,USD,1.3221,01/11/2026,30/11/2026\nJapan,Yen,JPY,199.5,01/11/2026,30/11/2026\n'
		);
		expect(importRates(world, 'nov.csv', file)).to.deep.equal({ taken: 2 });
		// Once more changes nothing.
		importRates(world, 'nov.csv', file);
		const { id } = await inEuro(world);
		const { frozen } = world.db.select().from(documents).where(eq(documents.id, id)).get()!;
		// 1 / 1.1843 = 0.8443806…
		expect(frozen!.exchange).to.deep.include({ rate: '0.844381', net: 844_38 });
		expect(frozen!.exchange!.source).to.contain('1.1843 EUR to the pound');
	});

	it('has one rate for a day, says where two meet, and names the row of a file', () => {
		const world = withRate();
		addRate(world, RATE);
		for (const other of [
			{ rate: '0.85' },
			{ from: '2026-11-10', to: '', rate: '0.8432' },
			{ from: '2026-10-15', to: '2026-11-01' }
		])
			expect(() => addRate(world, { ...RATE, ...other }))
				.to.throw()
				.with.nested.property('fields.from')
				.that.matches(/£0\.8432 from 1 Nov 2026 to 30 Nov 2026 already/);
		const twice = csv(
			'A,Euro,EUR,1.18,01/12/2026,31/12/2026\nB,Euro,EUR,1.19,01/12/2026,31/12/2026\n'
		);
		expect(() => importRates(world, 'dec.csv', twice))
			.to.throw()
			.with.nested.property('fields.file')
			.that.matches(/^Row 3: EUR has two rates/);
		for (const [rows, words] of [
			['A,Euro,EUR,0,01/12/2026,31/12/2026\n', /Row 2: “0” is no number/],
			['A,Euro,EUR,1.2,31/12/2026,01/12/2026\n', /are no days/],
			['A,Yen,JPY,199,01/12/2026,31/12/2026\n', /names none of the currencies/]
		] as const)
			expect(() => importRates(world, '', csv(rows)))
				.to.throw()
				.with.nested.property('fields.file')
				.that.matches(words);
		expect(removeRate(world, 'EUR', '2026-11-01')).to.deep.include({ rate: '0.8432' });
		addRate(world, { ...RATE, rate: '0.85' });
	});
});
