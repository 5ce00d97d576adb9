// The edges of what is owed: the day on which something turns, the order of one day, the penny that decides.
// Over 300 lines: a case each side of every limit.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { runningAccount, usualDays } from '../../../../src/lib/core/settlement/account';
import { deductionMonths } from '../../../../src/lib/core/settlement/deductions';
import {
	byWorth,
	habitOf,
	isHeld,
	likelyDay,
	summarise,
	sumsByAge,
	type OwedItem
} from '../../../../src/lib/core/settlement/owed';
import {
	beyondAfterCredit,
	leftToDeduct,
	stillToPay
} from '../../../../src/lib/core/settlement/position';
import { settle } from '../../../../src/lib/core/settlement/settle';
import type { SettlementEntry } from '../../../../src/lib/core/settlement/types';
import { ageOf } from '../../../../src/lib/core/settlement/statement';

const TODAY = '2026-11-24';
const item = (dueDate: string, toPay: number, hold: OwedItem['hold'] = null): OwedItem => ({
	documentId: 1,
	number: 'INV-1',
	dueDate,
	toPay: BigInt(toPay),
	hold
});

describe('age', () => {
	for (const [days, age] of [
		[-5, 'notDue'],
		[0, 'notDue'],
		[1, '1-30'],
		[30, '1-30'],
		[31, '31-60'],
		[60, '31-60'],
		[61, '61-90'],
		[90, '61-90'],
		[91, 'over90']
	] as const)
		it(`${days} days after due is ${age}`, () => expect(ageOf(days)).to.equal(age));

	it('sums what is to pay by it', () => {
		const items = [item('2026-11-24', 1), item('2026-11-23', 10), item('2026-10-25', 100)];
		expect(sumsByAge([...items, item('2026-10-24', 1000)], TODAY)).to.deep.equal({
			notDue: 1n,
			'1-30': 110n,
			'31-60': 1000n,
			'61-90': 0n,
			over90: 0n
		});
	});
});

describe('a hold', () => {
	it('of a dispute lasts; of a promise until its day has passed', () => {
		const promise = (until: string | null) => item(TODAY, 1, { kind: 'promise', until });
		expect(isHeld(item(TODAY, 1), TODAY)).to.equal(false);
		expect(isHeld(item(TODAY, 1, { kind: 'dispute', until: null }), TODAY)).to.equal(true);
		expect(isHeld(item(TODAY, 1, { kind: 'dispute', until: '2026-01-01' }), TODAY)).to.equal(true);
		expect(isHeld(promise('2026-11-25'), TODAY)).to.equal(true);
		expect(isHeld(promise('2026-11-24'), TODAY)).to.equal(true);
		expect(isHeld(promise('2026-11-23'), TODAY)).to.equal(false);
		expect(isHeld(promise(null), TODAY)).to.equal(false);
	});
});

describe('a payer', () => {
	it('is late from the day after due, and worth a call by pence and days, held ones left out', () => {
		const items = [
			item('2026-11-24', 5),
			item('2026-11-22', 100),
			item('2026-11-14', 10),
			item('2026-11-04', 1000, { kind: 'dispute', until: null })
		];
		expect(summarise(3, items, TODAY)).to.include({
			payerId: 3,
			owed: 1115n,
			late: 1110n,
			daysLate: 20,
			worth: 100n * 2n + 10n * 10n
		});
	});
	it('is not worth more for more than 120 days', () => {
		expect(summarise(1, [item('2026-07-27', 1)], TODAY).worth).to.equal(120n);
		expect(summarise(1, [item('2026-07-26', 1)], TODAY).worth).to.equal(120n);
		expect(summarise(1, [item('2026-07-28', 1)], TODAY).worth).to.equal(119n);
	});
	it('comes before others by worth, then by what it owes, then as known longest', () => {
		const payer = (payerId: number, worth: bigint, owed: bigint) => ({
			payerId,
			worth,
			owed,
			items: [],
			late: 0n,
			daysLate: 0
		});
		const order = [payer(4, 0n, 9n), payer(3, 0n, 9n), payer(2, 0n, 10n), payer(1, 1n, 0n)].sort(
			byWorth
		);
		expect(order.map(({ payerId }) => payerId)).to.deep.equal([1, 2, 3, 4]);
	});
	it('has a habit of whole days really taken', () => {
		expect(habitOf([40, 10, 30, 20])).to.deep.equal({ median: 20, from: 10, to: 30, of: 4 });
		expect(habitOf([9, 1, 5, 3, 7])).to.deep.equal({ median: 5, from: 3, to: 7, of: 5 });
		expect(usualDays([])).to.equal(null);
		expect(usualDays([12, 100, 9])).to.equal(12);
		expect(usualDays([9, 100, 12, 20])).to.equal(12);
	});
	it('pays on the promised day, else by habit, unless that has passed or it is disputed', () => {
		const habit = { median: 3, from: 0, to: 9, of: 5 };
		const due = (dueDate: string, hold: OwedItem['hold'] = null) =>
			likelyDay(item(dueDate, 1, hold), habit, TODAY);
		expect(due('2026-11-21')).to.equal('2026-11-24');
		expect(due('2026-11-20')).to.equal(null);
		expect(due('2026-11-21', { kind: 'dispute', until: null })).to.equal(null);
		expect(due('2026-11-21', { kind: 'promise', until: '2026-11-24' })).to.equal('2026-11-24');
		expect(due('2026-11-25', { kind: 'promise', until: '2026-11-23' })).to.equal('2026-11-28');
		expect(likelyDay(item('2026-11-25', 1), null, TODAY)).to.equal(null);
	});
});

describe('a running account', () => {
	it('goes by day, and within a day as given', () => {
		const row = (id: string, date: string, amount: bigint) => ({
			id,
			date,
			amount,
			what: '',
			documentId: null
		});
		expect(
			runningAccount([
				row('late', '2026-11-02', 5n),
				row('b', '2026-11-01', 100n),
				row('a', '2026-11-01', -30n),
				row('early', '2026-10-31', 1n)
			]).map(({ id, balance }) => [id, balance])
		).to.deep.equal([
			['early', 1n],
			['b', 101n],
			['a', 71n],
			['late', 76n]
		]);
	});
});

describe('what a contractor may still deduct', () => {
	it('is never below nothing, and what it sends neither', () => {
		expect(leftToDeduct({ deduction: null, withheld: 0n })).to.equal(0n);
		expect(leftToDeduct({ deduction: 200n, withheld: 50n })).to.equal(150n);
		expect(leftToDeduct({ deduction: 200n, withheld: 250n })).to.equal(0n);
		expect(stillToPay({ outstanding: 1000n, deduction: 200n, withheld: 50n })).to.equal(850n);
		expect(stillToPay({ outstanding: 100n, deduction: 200n, withheld: 50n })).to.equal(0n);
	});
});

describe('deductions by tax month', () => {
	const paid = (date: string, withheld: number, contractorId = 1, documentId = 7) => ({
		contractorId,
		date,
		documentId,
		gross: BigInt(withheld * 5),
		expected: BigInt(withheld),
		withheld: BigInt(withheld)
	});
	const stated = (deduction: number, monthEnd = '2026-11-05', contractorId = 1) => ({
		contractorId,
		monthEnd,
		deduction: BigInt(deduction)
	});

	it('end on the 5th: the 6th is the next month’s', () => {
		const months = deductionMonths(
			[
				paid('2026-11-05', 100),
				paid('2026-11-06', 10),
				paid('2026-10-06', 1),
				paid('2026-11-05', 1000, 2, 8),
				paid('2026-11-05', 5, 1, 9)
			],
			[],
			'2026-11-19'
		);
		expect(
			months.map((one) => [
				one.contractorId,
				one.monthEnd,
				one.withheld,
				one.gross,
				one.documentIds
			])
		).to.deep.equal([
			[1, '2026-12-05', 10n, 50n, [7]],
			[1, '2026-11-05', 106n, 530n, [7, 9]],
			[2, '2026-11-05', 1000n, 5000n, [8]]
		]);
		expect(months.map((one) => one.expected)).to.deep.equal([10n, 106n, 1000n]);
	});
	for (const [what, withheld, statement, today, state] of [
		['waits until the 19th', 5000, null, '2026-11-19', 'waiting'],
		['is missing from the 20th', 5000, null, '2026-11-20', 'missing'],
		['is owed by nobody who deducted nothing', 0, null, '2026-11-20', 'waiting'],
		['agrees to the penny', 5000, 5000, '2026-11-10', 'agrees'],
		['agrees within a pound, upwards', 5000, 5099, '2026-11-10', 'agrees'],
		['agrees within a pound, downwards', 5000, 4901, '2026-11-10', 'agrees'],
		['differs by a pound', 5000, 5100, '2026-11-10', 'differs'],
		['differs by a pound downwards', 5000, 4900, '2026-11-10', 'differs'],
		['is unexpected where nothing was deducted', 0, 1, '2026-11-10', 'unexpected'],
		['agrees that there was nothing', 0, 0, '2026-11-20', 'agrees']
	] as const)
		it(`a statement ${what}`, () => {
			const [month] = deductionMonths(
				[paid('2026-11-01', withheld)],
				statement === null ? [] : [stated(statement)],
				today
			);
			expect(month).to.include({
				state,
				stated: statement === null ? null : BigInt(statement),
				deadline: '2026-11-19'
			});
		});
	it('without a payment are there by their statement', () => {
		expect(deductionMonths([], [stated(500)], TODAY)).to.deep.equal([
			{
				contractorId: 1,
				monthEnd: '2026-11-05',
				deadline: '2026-11-19',
				gross: 0n,
				expected: 0n,
				withheld: 0n,
				stated: 500n,
				state: 'unexpected',
				documentIds: []
			}
		]);
	});
});

describe('what is beyond an invoice once some of it is credited', () => {
	const beyond = (cash: bigint, credit: bigint, deduction: bigint | null = null, own = 0n) =>
		beyondAfterCredit(
			{ total: 1000n, credited: 100n, cash, deduction },
			{ total: credit, deduction: own }
		);
	it('is what came above what is left, less what is still deducted of it', () => {
		expect(beyond(900n, 0n)).to.equal(0n);
		expect(beyond(900n, 50n)).to.equal(50n);
		expect(beyond(850n, 50n)).to.equal(0n);
		expect(beyond(849n, 50n)).to.equal(0n);
		// 900 less 200 deducted is 700; 90 less 20 credited leaves 630.
		expect(beyond(700n, 90n, 200n, 20n)).to.equal(70n);
		expect(beyond(0n, 900n)).to.equal(0n);
	});
});

describe('the day an invoice is settled', () => {
	const entry = (date: string, type: SettlementEntry['type'], amount: bigint): SettlementEntry => ({
		date,
		type,
		amount,
		withheld: null,
		deduction: null
	});
	const settledOn = (...entries: SettlementEntry[]) =>
		settle({ total: 100n, deduction: null, entries }).settledOn;
	it('is the first on which nothing is owed, and another once it was open again', () => {
		expect(settledOn()).to.equal(null);
		expect(settledOn(entry('2026-11-01', 'payment', 99n))).to.equal(null);
		expect(
			settledOn(
				entry('2026-11-03', 'payment', 5n),
				entry('2026-11-01', 'payment', 60n),
				entry('2026-11-02', 'writeOff', 40n)
			)
		).to.equal('2026-11-02');
		expect(
			settledOn(
				entry('2026-11-01', 'payment', 100n),
				entry('2026-11-02', 'refund', 30n),
				entry('2026-11-04', 'credit', 30n)
			)
		).to.equal('2026-11-04');
		expect(
			settledOn(entry('2026-11-01', 'payment', 100n), entry('2026-11-02', 'refund', 1n))
		).to.equal(null);
	});
});

describe('money given back', () => {
	const settled = (...entries: [string, SettlementEntry['type'], bigint, bigint | null][]) =>
		settle({
			total: 1000n,
			deduction: 200n,
			entries: entries.map(([date, type, amount, withheld]) => ({
				date,
				type,
				amount,
				withheld,
				deduction: null
			}))
		}).entries.map(({ withheld }) => withheld);
	it('takes along what was withheld above what is expected, by its share of what is over, and nothing else', () => {
		// 1,000 came where 800 were due, 250 withheld where 200 were expected: half of what is over goes back, and no more than was too much.
		for (const [came, withheld, back, along] of [
			[1000n, 250n, 100n, 25n],
			[1000n, 250n, 200n, 50n],
			[1000n, 250n, 300n, 50n],
			[1000n, 200n, 100n, 0n],
			[1000n, 150n, 100n, 0n],
			[800n, 250n, 100n, 0n]
		] as const)
			expect(
				settled(['2026-11-01', 'payment', came, withheld], ['2026-11-02', 'refund', back, null])[1],
				`${came} ${withheld} ${back}`
			).to.equal(along);
	});
});
