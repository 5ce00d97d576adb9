import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../src/lib/core/calendar/conversion';
import { addDays } from '../../../src/lib/core/calendar/manipulation';
import { habitOf, likelyDay } from '../../../src/lib/core/settlement/owed';
import { shareOldestFirst } from '../../../src/lib/core/settlement/sharing';
import { documents, openItems } from '../../../src/lib/server/db/schema';
import { recordForPayer } from '../../../src/lib/server/services/money/payerPayments';
import { useInHand, returnInHand } from '../../../src/lib/server/services/money/useInHand';
import { inHandOf } from '../../../src/lib/server/services/ledger/inHand';
import { expectSoundBooks } from '../../support/books';
import { FieldError, RefusedError } from '../../../src/lib/core/refusals';
import { pauseInvoice, noteCall, resumeInvoice } from '../../../src/lib/server/services/owed/holds';
import { lateCharges } from '../../../src/lib/server/services/owed/lateCharges';
import { missingRate, saveRate } from '../../../src/lib/server/services/owed/referenceRates';
import { owedPage, payerPage, type OwedFilter } from '../../../src/lib/server/services/owed/owed';
import { undoPayment } from '../../../src/lib/server/services/money/undo';
import { undoWriteOff, writeOff } from '../../../src/lib/server/services/money/writeOffs';
import {
	another as anotherOf,
	FIRM as BUSINESS,
	itemOf,
	oneLine as rows
} from '../../support/money';
import { CONTRACTOR, HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const on = (day: string) => world.clock.set(londonMoment(`${day}T09:00`));
const item = (id: number) => itemOf(world, id);
const ALL: OwedFilter = { late: false, above: 0n, label: '', hold: '', typed: '', page: 1 };

const another = (customerId: number, price: string, more: object = {}) =>
	anotherOf(world, customerId, price, more);
let keys = 0;
const pay = (payerId: number, amount: string, more: object = {}) =>
	recordForPayer(world, payerId, {
		key: `pay-${keys++}`,
		date: world.clock.today(),
		amount,
		way: 'bank',
		reference: '',
		...more
	});

describe('one payment for several invoices', () => {
	it('goes to the one due first, and the rest is credit on the account', async () => {
		const a = await issued(world, BUSINESS, rows('100'));
		const b = await another(a.customerId, '200');
		pay(a.customerId, '150.00');
		expect([item(a.id).outstanding, item(b.id).outstanding]).to.deep.equal([0, 210_00]);
		pay(a.customerId, '260.00');
		expect(item(b.id).state).to.equal('paid');
		expect(inHandOf(world.db, a.customerId).map((one) => one.amount)).to.deep.equal([50_00]);
	});

	it('goes where it is said to go; beyond what is open it is refused at its field', async () => {
		const a = await issued(world, BUSINESS, rows('100'));
		const b = await another(a.customerId, '200');
		expect(() => pay(a.customerId, '300', { shares: { [b.id]: '240.01' } }))
			.to.throw(FieldError)
			.with.nested.property(`fields.shares\\.${b.id}`);
		expect(() => pay(a.customerId, '100', { shares: { [b.id]: '100.01' } }))
			.to.throw(FieldError)
			.with.nested.property('fields.amount');
		pay(a.customerId, '300', { shares: { [b.id]: '240' } });
		expect([item(a.id).state, item(b.id).state]).to.deep.equal(['open', 'paid']);
		expect(inHandOf(world.db, a.customerId)[0]!.amount).to.equal(60_00);
	});

	it('net of deductions pays contractors’ invoices in full, as expected or as stated', async () => {
		const a = await issued(world, CONTRACTOR);
		const b = await another(a.customerId, '100', { contract: 'construction' });
		const net = (id: number) => (item(id).total - item(id).deduction!) / 100;
		pay(a.customerId, String(net(a.id)), { withheld: {} });
		expect(item(a.id).state).to.equal('paid');
		expect(item(a.id).withheld).to.equal(item(a.id).deduction);
		pay(a.customerId, '70', { withheld: { [b.id]: '30' } });
		expect([item(b.id).state, item(b.id).withheld]).to.deep.equal(['paid', 30_00]);
	});

	it('the same press twice is one; undone, everything is as before, credit included', async () => {
		const a = await issued(world, BUSINESS, rows('100'));
		const again = { key: 'once' };
		const id = pay(a.customerId, '500', again);
		expect(pay(a.customerId, '500', again)).to.equal(id);
		undoPayment(world, id, 'Wrong');
		expect(item(a.id).outstanding).to.equal(120_00);
		expect(inHandOf(world.db, a.customerId)).to.deep.equal([]);
	});

	it('without an invoice is all credit, used later, given back by hand, and not undone after that', async () => {
		const a = await issued(world, BUSINESS, rows('100'));
		const id = pay(a.customerId, '200', { shares: {} });
		expect(useInHand(world, a.id, 'use')).to.equal(120_00);
		expect(useInHand(world, a.id, 'use')).to.equal(0);
		expect(item(a.id).state).to.equal('paid');
		const back = { key: 'back', date: '2026-11-24', way: 'bank', reference: '' };
		expect(() => returnInHand(world, id, { ...back, amount: '80.01' })).to.throw(FieldError);
		returnInHand(world, id, { ...back, amount: '80' });
		returnInHand(world, id, { ...back, amount: '80' });
		expect(inHandOf(world.db, a.customerId)).to.deep.equal([]);
		expect(() => undoPayment(world, id, 'Wrong')).to.throw(RefusedError);
	});

	it('what one invoice was overpaid by pays another', async () => {
		const a = await issued(world, BUSINESS, rows('100'));
		const { recordPayment } = await import('../../../src/lib/server/services/money/payments');
		recordPayment(world, a.id, {
			key: 'much',
			date: '2026-11-24',
			amount: '200',
			withheld: '',
			way: 'bank',
			reference: '',
			allowOverpaid: true
		});
		const b = await another(a.customerId, '200');
		useInHand(world, b.id, 'move');
		expect([item(a.id).overpaid, item(b.id).outstanding]).to.deep.equal([0, 160_00]);
		expect(() => useInHand(world, b.id, 'again')).to.throw(RefusedError);
	});

	it('is shared out to the penny by the core', () => {
		const payables = [
			{ documentId: 2, dueDate: '2026-11-02', toPay: 50n },
			{ documentId: 1, dueDate: '2026-11-01', toPay: 70n }
		];
		expect(shareOldestFirst(100n, payables)).to.deep.equal({
			shares: [
				{ documentId: 1, amount: 70n },
				{ documentId: 2, amount: 30n }
			],
			over: 0n
		});
		expect(shareOldestFirst(121n, payables).over).to.equal(1n);
		expect(shareOldestFirst(-5n, payables)).to.deep.equal({ shares: [], over: 0n });
	});
});

describe('a debt given up', () => {
	it('asks why, is booked as lost, and can be taken up again', async () => {
		const a = await issued(world, BUSINESS, rows('100'));
		expect(() => writeOff(world, a.id, ' ', 'k')).to.throw(FieldError);
		writeOff(world, a.id, 'Gone away', 'k');
		writeOff(world, a.id, 'Gone away', 'k');
		expect([item(a.id).state, item(a.id).writtenOff]).to.deep.equal(['writtenOff', 120_00]);
		undoWriteOff(world, a.id, 'u');
		expect([item(a.id).state, item(a.id).outstanding]).to.deep.equal(['open', 120_00]);
	});

	it('paid after all is owed again as far as it is paid, and no more', async () => {
		const a = await issued(world, BUSINESS, rows('100'));
		writeOff(world, a.id, 'Gone away', 'k');
		const { recordPayment } = await import('../../../src/lib/server/services/money/payments');
		recordPayment(world, a.id, {
			key: 'late',
			date: '2026-11-24',
			amount: '50',
			withheld: '',
			way: 'bank',
			reference: '',
			allowOverpaid: true
		});
		const { cash, writtenOff, outstanding, overpaid } = item(a.id);
		expect({ cash, writtenOff, outstanding, overpaid }).to.deep.equal({
			cash: 50_00,
			writtenOff: 70_00,
			outstanding: 0,
			overpaid: 0
		});
	});
});

describe('what is owed', () => {
	it('stands by payer, most worth a call first, with ages, holds and habits', async () => {
		const small = await issued(world, { ...BUSINESS, name: 'Small' }, rows('10'));
		const large = await issued(world, { ...BUSINESS, name: 'Large' }, rows('1000'));
		on('2026-12-18');
		const page = owedPage(world, ALL);
		expect(page.rows.map((row) => row.payer)).to.deep.equal(['Large', 'Small']);
		expect([page.owed, page.late, page.ages['1-30']]).to.deep.equal([1212_00n, 1212_00n, 1212_00n]);
		pauseInvoice(world, large.id, { kind: 'dispute', until: '', note: 'Too rough' });
		expect(owedPage(world, ALL).rows[0]!.payer).to.equal('Small');
		expect(owedPage(world, { ...ALL, hold: 'dispute' }).rows).to.have.length(1);
		expect(owedPage(world, { ...ALL, above: 100_00n }).matching).to.equal(1);
		expect(owedPage(world, { ...ALL, typed: 'sma' }).rows[0]!.payerId).to.equal(small.customerId);
		resumeInvoice(world, large.id);
		expect(owedPage(world, { ...ALL, hold: 'dispute' }).rows).to.have.length(0);
	});

	it('a promise holds until its day, and asks for one that has not passed', async () => {
		const a = await issued(world, BUSINESS, rows('100'));
		const promise = { kind: 'promise' as const, note: '' };
		expect(() => pauseInvoice(world, a.id, { ...promise, until: '2026-11-23' })).to.throw(
			FieldError
		);
		expect(() => pauseInvoice(world, a.id, { ...promise, until: 'soon' })).to.throw(FieldError);
		pauseInvoice(world, a.id, { ...promise, until: '2026-12-20' });
		on('2026-12-20');
		expect(owedPage(world, ALL).rows[0]!.worth).to.equal(0n);
		on('2026-12-21');
		expect(owedPage(world, ALL).rows[0]!.worth > 0n).to.equal(true);
	});

	it('a bill-to is the payer, and 200 invoices of one payer stand on one row', async () => {
		const agent = await issued(world, { ...BUSINESS, name: 'Agent' }, rows('1'));
		const owner = await issued(
			world,
			{ ...BUSINESS, name: 'Owner', billToId: agent.customerId },
			rows('2')
		);
		expect(item(owner.id).payerId).to.equal(agent.customerId);
		const row = world.db.select().from(documents).where(eq(documents.id, owner.id)).get()!;
		for (let n = 0; n < 198; n++) {
			const copy = world.db
				.insert(documents)
				.values({
					...row,
					id: undefined,
					key: `c${n}`,
					number: `C-${n}`,
					token: null,
					running: null,
					kind: 'invoice',
					state: 'discarded'
				})
				.returning({ id: documents.id })
				.get();
			world.db
				.insert(openItems)
				.values({ ...item(owner.id), documentId: copy.id })
				.run();
		}
		const page = owedPage(world, ALL);
		expect(page.rows).to.have.length(1);
		expect(page.rows[0]!.items).to.have.length(200);
		for (const { documentId } of payerPage(world, agent.customerId).open)
			if (documentId !== agent.id && documentId !== owner.id)
				world.db.delete(openItems).where(eq(openItems.documentId, documentId)).run();
		world.db.update(documents).set({ number: null }).where(eq(documents.state, 'discarded')).run();
	});

	it('keeps notes of calls, once for each press', async () => {
		const a = await issued(world, BUSINESS, rows('100'));
		expect(() => noteCall(world, a.customerId, ' ', 'x')).to.throw(FieldError);
		noteCall(world, a.customerId, 'Pays on Friday', 'c');
		noteCall(world, a.customerId, 'Pays on Friday', 'c');
		expect(payerPage(world, a.customerId).calls.map((one) => one.text)).to.deep.equal([
			'Pays on Friday'
		]);
	});

	it('is likely to come by the payer’s own habit', () => {
		expect(habitOf([])).to.equal(null);
		const habit = habitOf([30, 2, 9, 11, 4])!;
		expect(habit).to.deep.equal({ median: 9, from: 4, to: 11, of: 5 });
		const item = { documentId: 1, number: '', dueDate: '2026-11-20', toPay: 1n, hold: null };
		expect(likelyDay(item, habit, '2026-11-24')).to.equal('2026-11-29');
		expect(likelyDay(item, habit, '2026-12-24')).to.equal(null);
		const hold = { kind: 'promise' as const, until: '2026-12-01' };
		expect(likelyDay({ ...item, hold }, null, '2026-11-24')).to.equal('2026-12-01');
	});
});

describe('what could be claimed for lateness', () => {
	it('is shown for businesses from the first day, by rates that the owner keeps', async () => {
		const firm = await issued(world, BUSINESS, rows('1000'));
		const home = await issued(world, { ...HOUSEHOLD, name: 'At home' }, rows('1000'));
		const due = item(firm.id).dueDate;
		on(addDays(due, 10));
		expect(missingRate(world)).to.equal('2026-07-01');
		expect(lateCharges(world.db, [firm.id], world.clock.today()).get(firm.id)).to.deep.equal({
			missingRate: '2026-07-01'
		});
		expect(() => saveRate(world, '2026-07-02', '4')).to.throw(FieldError);
		expect(() => saveRate(world, '2026-07-01', 'four')).to.throw(FieldError);
		saveRate(world, '2026-07-01', '3.75 %');
		const claims = lateCharges(world.db, [firm.id, home.id], world.clock.today());
		expect([...claims.keys()]).to.deep.equal([firm.id]);
		// 1,200.00 × 10 days × 11.75 % / 365, and 70.00.
		expect(claims.get(firm.id)).to.include({ interest: 386n, compensation: 7000n });
		expect(
			owedPage(world, ALL).rows.find((row) => row.payerId === firm.customerId)!.claim
		).to.equal(73_86n);
	});
});
