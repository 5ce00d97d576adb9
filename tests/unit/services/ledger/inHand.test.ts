// Whose money lies in hand: payments that settle nothing and invoices that were paid beyond, summed by payer.
import { expect } from 'chai';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { inHandOf, payersInHand } from '../../../../src/lib/server/services/ledger/inHand';
import { mayDeduct, openOf } from '../../../../src/lib/server/services/ledger/openInvoices';
import { leftToDeduct, stillToPay } from '../../../../src/lib/server/services/ledger/position';
import { expectSoundBooks } from '../../../support/books';
import { FIRM, oneLine, payAhead, payByHand } from '../../../support/money';
import { CONTRACTOR, HOUSEHOLD, issued, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});
const early = (payerId: number, amount: string, date?: string) =>
	payAhead(world, payerId, amount, date);

describe('money in hand', () => {
	it('is summed by payer, the most first, and of the same the one known longest', async () => {
		const [a, b, c] = ['A', 'B', 'C'].map((name) => addCustomer(world, { ...FIRM, name })) as [
			number,
			number,
			number
		];
		const over = await issued(world, { ...HOUSEHOLD, name: 'Over' }, oneLine('100'));
		payByHand(world, over.id, '150');
		early(c, '20');
		early(b, '20');
		early(b, '5', '2026-11-19');
		early(a, '20');
		expect(payersInHand(world.db)).to.deep.equal([
			{ payerId: over.customerId, payer: 'Over', amount: 30_00 },
			{ payerId: b, payer: 'B', amount: 25_00 },
			{ payerId: a, payer: 'A', amount: 20_00 },
			{ payerId: c, payer: 'C', amount: 20_00 }
		]);
		expect(
			inHandOf(world.db, b).map(({ date, amount, what }) => [date, amount, what])
		).to.deep.equal([
			['2026-11-19', 5_00, 'Payment “X”'],
			['2026-11-20', 20_00, 'Payment “X”']
		]);
		expect(inHandOf(world.db, over.customerId).map(({ what }) => what)).to.deep.equal([
			'More than INV-0007 comes to'
		]);
	});

	it('is nobody’s where everything is used', async () => {
		const paid = await issued(world, HOUSEHOLD, oneLine('100'));
		payByHand(world, paid.id, '120');
		expect(payersInHand(world.db)).to.deep.equal([]);
		expect(openOf(world.db, paid.customerId)).to.deep.equal([]);
	});
});

describe('a position', () => {
	it('leaves to pay what is outstanding less what may yet be deducted', () => {
		expect(stillToPay({ outstanding: 1000, deduction: 200, withheld: 50 })).to.equal(850);
		expect(leftToDeduct({ deduction: 200, withheld: 50 })).to.equal(150);
		expect(stillToPay({ outstanding: 1000, deduction: null, withheld: 0 })).to.equal(1000);
		expect(leftToDeduct({ deduction: null, withheld: 0 })).to.equal(0);
	});

	it('may be deducted from where the customer is no household', async () => {
		const contractor = await issued(world, CONTRACTOR);
		const household = await issued(world, { ...HOUSEHOLD, name: 'H' });
		expect([...mayDeduct(world.db, [])]).to.deep.equal([]);
		expect([...mayDeduct(world.db, [contractor.id, household.id])]).to.deep.equal([contractor.id]);
	});
});
