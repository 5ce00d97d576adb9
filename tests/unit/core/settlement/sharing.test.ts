// Money shared out and taken back: what is due first comes first, what came last goes first, and days that do not count.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { FiguresError } from '../../../../src/lib/core/figures/types';
import { parseDecimal } from '../../../../src/lib/core/money/decimal';
import {
	deductionMonths,
	paidParts,
	takeLast
} from '../../../../src/lib/core/settlement/deductions';
import { readLatenessInput } from '../../../../src/lib/core/settlement/json';
import { lateness } from '../../../../src/lib/core/settlement/lateness';
import { shareOldestFirst } from '../../../../src/lib/core/settlement/sharing';

describe('a payment shared out', () => {
	const open = [
		{ documentId: 9, dueDate: '2026-10-01', toPay: 50n },
		{ documentId: 3, dueDate: '2026-11-01', toPay: 30n },
		{ documentId: 5, dueDate: '2026-10-01', toPay: 20n },
		{ documentId: 1, dueDate: '2026-09-01', toPay: 0n },
		{ documentId: 2, dueDate: '2026-09-02', toPay: -7n }
	];
	const shared = (amount: bigint) => {
		const { shares, over } = shareOldestFirst(amount, open);
		return [...shares.map((one) => `${one.documentId}:${one.amount}`), `over ${over}`].join(' ');
	};
	it('pays what is due first, then what was issued first; what is over is said', () => {
		expect(shared(1n)).to.equal('5:1 over 0');
		expect(shared(20n)).to.equal('5:20 over 0');
		expect(shared(21n)).to.equal('5:20 9:1 over 0');
		expect(shared(100n)).to.equal('5:20 9:50 3:30 over 0');
		expect(shared(101n)).to.equal('5:20 9:50 3:30 over 1');
		expect(shared(0n)).to.equal('over 0');
		expect(shared(-5n)).to.equal('over 0');
	});
});

describe('money taken out of what came', () => {
	const parts = [
		{ paidOn: '2026-10-01', cash: 80n, withheld: 20n },
		{ paidOn: '2026-11-01', cash: 40n, withheld: 10n }
	];
	it('is the last of it, cash and deduction each, and no more than there is', () => {
		expect(takeLast(parts, 50n, 15n)).to.deep.equal({
			taken: [
				{ paidOn: '2026-11-01', cash: 40n, withheld: 10n },
				{ paidOn: '2026-10-01', cash: 10n, withheld: 5n }
			],
			left: [
				{ paidOn: '2026-10-01', cash: 70n, withheld: 15n },
				{ paidOn: '2026-11-01', cash: 0n, withheld: 0n }
			]
		});
		expect(takeLast(parts, 40n, 0n).taken).to.deep.equal([
			{ paidOn: '2026-11-01', cash: 40n, withheld: 0n }
		]);
		expect(takeLast(parts, 0n, 11n).taken).to.deep.equal([
			{ paidOn: '2026-11-01', cash: 0n, withheld: 10n },
			{ paidOn: '2026-10-01', cash: 0n, withheld: 1n }
		]);
		expect(
			takeLast(parts, 500n, 500n).left.every((one) => one.cash + one.withheld === 0n)
		).to.equal(true);
		expect(takeLast(parts, 0n, 0n)).to.deep.equal({ taken: [], left: parts });
	});

	it('stands in the order of its days, what was given back taken from the last before it', () => {
		const result = (withheld: bigint) => ({ withheld }) as never;
		const parted = paidParts(
			[
				{ type: 'payment', date: '2026-11-01', amount: 40n, withheld: null },
				{ type: 'payment', date: '2026-10-01', amount: 80n, withheld: null, paidOn: '2026-09-30' },
				{ type: 'credit', date: '2026-10-15', amount: 5n } as never,
				{ type: 'refund', date: '2026-11-02', amount: 50n, withheld: null }
			] as never,
			{ entries: [result(10n), result(20n), result(0n), result(12n)] }
		);
		expect(parted).to.deep.equal([
			{ paidOn: '2026-09-30', cash: 70n, withheld: 18n },
			{ paidOn: '2026-11-01', cash: 0n, withheld: 0n }
		]);
	});
});

describe('deductions by month', () => {
	const paid = (date: string, withheld: bigint, contractorId = 1, documentId = 7) => ({
		contractorId,
		date,
		documentId,
		gross: 100_00n,
		expected: 20_00n,
		withheld
	});
	const stated = (monthEnd: string, deduction: bigint, contractorId = 1) => ({
		contractorId,
		monthEnd,
		deduction
	});
	it('belong to the tax month of the payment, which ends on the fifth', () => {
		const months = deductionMonths(
			[
				paid('2026-10-05', 20_00n),
				paid('2026-10-06', 19_00n, 1, 8),
				paid('2026-11-05', 1_00n, 1, 8),
				paid('2026-10-20', 5_00n, 2, 9)
			],
			[stated('2026-10-05', 19_01n), stated('2026-12-05', 3_00n)],
			'2026-11-19'
		);
		expect(
			months.map((one) =>
				[one.contractorId, one.monthEnd, one.deadline, one.gross, one.withheld, one.state].join(' ')
			)
		).to.deep.equal([
			'1 2026-12-05 2026-12-19 0 0 unexpected',
			'1 2026-11-05 2026-11-19 20000 2000 waiting',
			'2 2026-11-05 2026-11-19 10000 500 waiting',
			'1 2026-10-05 2026-10-19 10000 2000 agrees'
		]);
		expect(months[1]!.documentIds).to.deep.equal([8]);
	});

	it('are missing the day after the deadline, and differ from a whole pound on', () => {
		const state = (deduction: bigint | null, today: string, withheld = 20_00n) =>
			deductionMonths(
				[paid('2026-10-20', withheld)],
				deduction === null ? [] : [stated('2026-11-05', deduction)],
				today
			)[0]!.state;
		expect(state(null, '2026-11-19')).to.equal('waiting');
		expect(state(null, '2026-11-20')).to.equal('missing');
		expect(state(null, '2026-11-20', 0n)).to.equal('waiting');
		expect(state(19_01n, '2026-11-20')).to.equal('agrees');
		expect(state(19_00n, '2026-11-20')).to.equal('differs');
		expect(state(21_00n, '2026-11-20')).to.equal('differs');
		expect(state(0n, '2026-11-20', 0n)).to.equal('agrees');
	});
});

describe('days that do not count', () => {
	const rate = [{ from: '2026-07-01', rate: parseDecimal('4')! }];
	/** 1,000.00 from 1 October; the Act's 8 % above 4 %: 12 % a year. */
	const late = (pauses: { from: string; to: string }[], business = true) =>
		lateness({
			total: 1000_00n,
			due: '2026-09-30',
			asOf: '2026-10-10',
			business,
			payments: [],
			referenceRates: rate,
			pauses
		});
	const spans = (...pauses: [from: string, to: string][]) =>
		late(pauses.map(([from, to]) => ({ from, to }))).workings.spans.map(
			(one) => `${one.from.slice(8)}-${one.to.slice(8)} ${one.days}`
		);
	it('are taken out of the days between, at either end, in the middle, or all of them', () => {
		expect(spans()).to.deep.equal(['01-10 10']);
		expect(spans(['2026-09-01', '2026-09-30'])).to.deep.equal(['01-10 10']);
		expect(spans(['2026-10-11', '2026-10-20'])).to.deep.equal(['01-10 10']);
		expect(spans(['2026-09-20', '2026-10-01'])).to.deep.equal(['02-10 9']);
		expect(spans(['2026-10-10', '2026-10-20'])).to.deep.equal(['01-09 9']);
		expect(spans(['2026-10-04', '2026-10-05'])).to.deep.equal(['01-03 3', '06-10 5']);
		expect(spans(['2026-10-04', '2026-10-05'], ['2026-10-07', '2026-10-07'])).to.deep.equal([
			'01-03 3',
			'06-06 1',
			'08-10 3'
		]);
		expect(spans(['2026-10-01', '2026-10-10'])).to.deep.equal([]);
		// 8 of 10 days: 1,000.00 × 12 % × 8 / 365.
		expect(late([{ from: '2026-10-04', to: '2026-10-05' }]).interest).to.equal(2_63n);
	});

	it('are asked for with the reference rates between businesses alone', () => {
		const given = { total: '10.00', due: '2026-01-01', asOf: '2026-02-01' };
		expect(() => readLatenessInput({ ...given, business: true })).to.throw(FiguresError);
		expect(readLatenessInput({ ...given, business: false })).to.deep.include({
			payments: [],
			referenceRates: []
		});
	});
});
