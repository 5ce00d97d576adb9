// What every event posts, account by account, for every kind of customer and every way money moves. Expected by hand.
import { expect } from 'chai';
import { sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { creditInvoice } from '../../../../src/lib/server/services/invoices/creditNote';
import { recordForPayer } from '../../../../src/lib/server/services/money/payerPayments';
import { useInHand } from '../../../../src/lib/server/services/money/useInHand';
import { writeAtOnce } from '../../../../src/lib/server/db/connection';
import { bookPayout } from '../../../../src/lib/server/services/money/payouts';
import { openCheckout } from '../../../../src/lib/server/services/money/checkouts';
import { refundByHand } from '../../../../src/lib/server/services/money/refunds';
import { undoPayment } from '../../../../src/lib/server/services/money/undo';
import { undoWriteOff, writeOff } from '../../../../src/lib/server/services/money/writeOffs';
import { expectSoundBooks } from '../../../support/books';
import { another, FIRM, itemOf, oneLine, payByHand } from '../../../support/money';
import {
	CONTRACTOR,
	HOUSEHOLD,
	issued,
	line,
	makeWorld,
	receive,
	settledEvent,
	type TestWorld
} from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

/** The sums of the accounts that the last entry moved, in pence. */
function lastEntry(): Record<string, number> {
	const rows = world.db.all<{ account: string; amount: number }>(sql`
		select account, sum(amount) as amount from journal_lines
		where entry_id = (select max(id) from journal_entries) group by account having sum(amount) <> 0`);
	return Object.fromEntries(rows.map((row) => [row.account, row.amount]));
}

/** The sums of all accounts that are not zero. */
function balances(): Record<string, number> {
	const rows = world.db.all<{ account: string; amount: number }>(
		sql`select account, sum(amount) as amount from journal_lines group by account having sum(amount) <> 0`
	);
	return Object.fromEntries(rows.map((row) => [row.account, row.amount]));
}

const NO_VAT = { vatRegistered: false, vatNumber: '' };
const END_USER = {
	...CONTRACTOR,
	standing: {
		...CONTRACTOR.standing,
		endUser: true,
		endUserStatement: 'We are an end user',
		endUserDate: '2026-01-05'
	}
};
const UNREGISTERED = {
	...CONTRACTOR,
	standing: { from: '', vatRegistered: false, cisRegistered: true, cisRate: '30' as const }
};
const labour = { rows: [line('a', 'Render', '1000', { kind: 'labour' })] };

describe('issuing posts', () => {
	const cases: [string, object, object, Record<string, number>][] = [
		[
			'a business: VAT on top',
			FIRM,
			labour,
			{ receivable: 120_000, sales: -100_000, vatOutput: -20_000 }
		],
		[
			'a household: VAT within the price',
			HOUSEHOLD,
			{ ...labour, pricesIncludeVat: true },
			{ receivable: 100_000, sales: -83_333, vatOutput: -16_667 }
		],
		[
			'a contractor under the reverse charge: no VAT, the deduction not yet',
			CONTRACTOR,
			labour,
			{ receivable: 100_000, sales: -100_000 }
		],
		[
			'an end user: VAT, the deduction not yet',
			END_USER,
			labour,
			{ receivable: 120_000, sales: -100_000, vatOutput: -20_000 }
		],
		[
			'a contractor without VAT number: VAT',
			UNREGISTERED,
			labour,
			{ receivable: 120_000, sales: -100_000, vatOutput: -20_000 }
		],
		[
			'statutory interest: neither VAT nor an account of its own yet',
			FIRM,
			{ rows: [line('a', 'Interest', '70', { vat: 'noSupply', vatReason: 'noSupply' })] },
			{ receivable: 7_000, sales: -7_000 }
		]
	];
	for (const [what, customer, sheet, expected] of cases)
		it(what, async () => {
			await issued(world, customer, sheet);
			expect(lastEntry()).to.deep.equal(expected);
		});

	it('a seller without VAT: sales alone', async () => {
		world.end();
		world = makeWorld(NO_VAT);
		await issued(world, FIRM, labour);
		expect(lastEntry()).to.deep.equal({ receivable: 100_000, sales: -100_000 });
	});

	it('a credit note: the same the other way round', async () => {
		const { id } = await issued(world, END_USER, labour);
		await creditInvoice(world, id, 'Not done', 'c');
		expect(balances()).to.deep.equal({});
	});
});

describe('a payment posts', () => {
	for (const [way, account] of [
		['bank', 'bank'],
		['cheque', 'bank'],
		['cash', 'cash'],
		['card', 'cardClearing']
	] as const)
		it(`by ${way} on ${account}`, async () => {
			const { id } = await issued(world, FIRM, labour);
			payByHand(world, id, '1200', { way });
			expect(lastEntry()).to.deep.equal({ [account]: 120_000, receivable: -120_000 });
		});

	it('of a contractor: what was withheld beside the cash', async () => {
		const { id } = await issued(world, CONTRACTOR, labour);
		payByHand(world, id, '400');
		expect(lastEntry()).to.deep.equal({ bank: 40_000, cisWithheld: 10_000, receivable: -50_000 });
		payByHand(world, id, '400.00');
		expect(balances()).to.deep.equal({ bank: 80_000, cisWithheld: 20_000, sales: -100_000 });
	});

	it('of a contractor that states another deduction: as stated', async () => {
		const { id } = await issued(world, END_USER, labour);
		payByHand(world, id, '900', { withheld: '300' });
		expect(lastEntry()).to.deep.equal({ bank: 90_000, cisWithheld: 30_000, receivable: -120_000 });
	});

	it('by card through the processor: the fee apart', async () => {
		const { id } = await issued(world, FIRM, labour);
		await openCheckout(world, tokenOf(id), 'k');
		receive(world, settledEvent('chk-1', 120_000));
		expect(lastEntry()).to.deep.equal({
			cardClearing: 119_975,
			cardFees: 25,
			receivable: -120_000
		});
	});

	it('beyond everything open: the rest is owed to the payer', async () => {
		const { id, customerId } = await issued(world, FIRM, labour);
		recordForPayer(world, customerId, {
			key: 'p',
			date: '2026-11-24',
			amount: '1500',
			way: 'bank',
			reference: ''
		});
		expect(lastEntry()).to.deep.equal({
			bank: 150_000,
			receivable: -120_000,
			customerCredit: -30_000
		});
		const next = await another(world, customerId, '500');
		useInHand(world, next.id, 'use');
		expect(lastEntry()).to.deep.equal({ customerCredit: 30_000, receivable: -30_000 });
		expect(itemOf(world, id).toPay).to.equal(0);
		expect(itemOf(world, next.id).toPay).to.equal(30_000);
	});

	it('undone: everything back, the deduction with it', async () => {
		const { id } = await issued(world, CONTRACTOR, labour);
		const payment = payByHand(world, id, '800');
		undoPayment(world, payment, 'Wrong invoice');
		expect(lastEntry()).to.deep.equal({ bank: -80_000, cisWithheld: -20_000, receivable: 100_000 });
	});
});

const tokenOf = (id: number) =>
	world.db.get<{ token: string }>(sql`select token from documents where id = ${id}`)!.token;

describe('what else moves money posts', () => {
	it('a refund by hand: out of the account it went from, owed again', async () => {
		const { id } = await issued(world, FIRM, labour);
		payByHand(world, id, '1200');
		refundByHand(world, id, {
			key: 'r',
			date: '2026-11-24',
			amount: '200',
			way: 'cash',
			reference: ''
		});
		expect(lastEntry()).to.deep.equal({ cash: -20_000, receivable: 20_000 });
	});

	it('a debt given up: to bad debts, never to sales; and back again', async () => {
		const { id } = await issued(world, FIRM, labour);
		writeOff(world, id, 'Gone', 'w');
		expect(lastEntry()).to.deep.equal({ badDebts: 120_000, receivable: -120_000 });
		undoWriteOff(world, id, 'u');
		expect(lastEntry()).to.deep.equal({ badDebts: -120_000, receivable: 120_000 });
	});

	it('a debt given up and paid after all: as far as it is paid', async () => {
		const { id } = await issued(world, FIRM, labour);
		writeOff(world, id, 'Gone', 'w');
		payByHand(world, id, '500');
		expect(balances()).to.deep.equal({
			bank: 50_000,
			badDebts: 70_000,
			sales: -100_000,
			vatOutput: -20_000
		});
	});

	it('a payout: from the processor to the bank', () => {
		writeAtOnce(world.db, (tx) =>
			bookPayout(tx, world, {
				id: 'e',
				type: 'payout.paid',
				payout: 'po-1',
				amount: 975,
				reference: 'PO1',
				parts: [{ checkout: 'chk-1', type: 'payment', amount: 1000, fee: 25 }]
			})
		);
		expect(lastEntry()).to.deep.equal({ bank: 975, cardClearing: -975 });
	});

	it('several invoices at once: each its own part', async () => {
		const first = await issued(world, FIRM, oneLine('100'));
		await another(world, first.customerId, '200');
		recordForPayer(world, first.customerId, {
			key: 'both',
			date: '2026-11-24',
			amount: '360',
			way: 'bank',
			reference: ''
		});
		const parts = world.db.all<{ document: number; amount: number }>(sql`
			select document_id as document, sum(amount) as amount from journal_lines
			where entry_id = (select max(id) from journal_entries) and account = 'receivable' group by 1 order by 1`);
		expect(parts.map((one) => one.amount)).to.deep.equal([-12_000, -24_000]);
	});
});
