// Who is called first, how somebody pays, and how large the marks of money grow.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	byWorth,
	habitOf,
	isHeld,
	likelyDay,
	markCap,
	summarise,
	sumsByAge,
	type OwedItem
} from '../../../../src/lib/core/settlement/owed';

const TODAY = '2026-11-24';
const item = (more: Partial<OwedItem> = {}): OwedItem => ({
	documentId: 1,
	number: 'INV-0007',
	dueDate: '2026-11-14',
	toPay: 100n,
	hold: null,
	...more
});
const promise = (until: string | null) => ({ kind: 'promise' as const, until });
const dispute = { kind: 'dispute' as const, until: null };

describe('who owes', () => {
	it('is worth a call by what is late for how long, up to 120 days, unless it is held', () => {
		const sum = (...items: OwedItem[]) => {
			const { owed, late, daysLate, worth } = summarise(1, items, TODAY);
			return [owed, late, daysLate, worth];
		};
		expect(sum(item())).to.deep.equal([100n, 100n, 10, 1000n]);
		expect(sum(item({ dueDate: TODAY }))).to.deep.equal([100n, 0n, 0, 0n]);
		expect(sum(item({ dueDate: '2026-11-23' }))).to.deep.equal([100n, 100n, 1, 100n]);
		expect(sum(item({ hold: dispute }))).to.deep.equal([100n, 100n, 10, 0n]);
		expect(sum(item({ dueDate: '2026-07-27' }))[3]).to.equal(12_000n);
		expect(sum(item({ dueDate: '2026-07-26' }))[3]).to.equal(12_000n);
		expect(sum(item(), item({ dueDate: '2026-11-04', toPay: 5n }))).to.deep.equal([
			105n,
			105n,
			20,
			1100n
		]);
		expect(isHeld(item({ hold: promise(TODAY) }), TODAY)).to.equal(true);
		expect(isHeld(item({ hold: promise('2026-11-23') }), TODAY)).to.equal(false);
		expect(isHeld(item({ hold: promise(null) }), TODAY)).to.equal(false);
		expect(isHeld(item(), TODAY)).to.equal(false);
	});

	it('comes in the order of that, then of what is owed, then as they came', () => {
		const payer = (payerId: number, worth: bigint, owed: bigint) =>
			({ payerId, worth, owed, items: [], late: 0n, daysLate: 0 }) as never as Parameters<
				typeof byWorth
			>[0];
		const order = [payer(4, 0n, 5n), payer(3, 0n, 5n), payer(2, 0n, 9n), payer(1, 7n, 1n)]
			.sort(byWorth)
			.map((one) => one.payerId);
		expect(order).to.deep.equal([1, 2, 3, 4]);
		const sums = sumsByAge(
			[item(), item({ dueDate: '2026-12-01', toPay: 7n }), item({ toPay: 1n })],
			TODAY
		);
		expect(
			Object.values(sums)
				.filter((sum) => sum > 0n)
				.sort()
		).to.deep.equal([101n, 7n]);
	});

	it('pays by a habit: days really taken, in the middle and a quarter from each end', () => {
		expect(habitOf([])).to.equal(null);
		expect(habitOf([5])).to.deep.equal({ median: 5, from: 5, to: 5, of: 1 });
		expect(habitOf([30, -2, 10, 20, 0])).to.deep.equal({ median: 10, from: 0, to: 20, of: 5 });
		expect(habitOf([4, 1, 3, 2])).to.deep.equal({ median: 2, from: 1, to: 3, of: 4 });
	});

	it('pays on the day that was promised, else by habit; a day that has passed says nothing', () => {
		const habit = { median: 12, from: 0, to: 20, of: 9 };
		expect(likelyDay(item(), habit, TODAY)).to.equal('2026-11-26');
		expect(likelyDay(item(), { ...habit, median: 10 }, TODAY)).to.equal(TODAY);
		expect(likelyDay(item(), { ...habit, median: 9 }, TODAY)).to.equal(null);
		expect(likelyDay(item(), null, TODAY)).to.equal(null);
		expect(likelyDay(item({ hold: dispute }), habit, TODAY)).to.equal(null);
		expect(likelyDay(item({ hold: promise('2026-12-01') }), habit, TODAY)).to.equal('2026-12-01');
		expect(likelyDay(item({ hold: promise('2026-11-20') }), habit, TODAY)).to.equal('2026-11-26');
		expect(likelyDay(item({ hold: promise(TODAY) }), null, TODAY)).to.equal(TODAY);
	});

	it('is marked up to a round amount, and one that is huge does not make all others small', () => {
		expect(markCap([])).to.equal(160n);
		expect(markCap([160n])).to.equal(160n);
		expect(markCap([161n])).to.equal(400n);
		expect(markCap([801n])).to.equal(1600n);
		expect(markCap([8000n, 8000n])).to.equal(8000n);
		// Eight times 100 rather than a million.
		expect(markCap([100n, 100n, 100n, 100n, 1_000_000n])).to.equal(800n);
	});
});
