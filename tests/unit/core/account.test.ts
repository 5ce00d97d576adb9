import { expect } from 'chai';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, it } from 'mocha';
import { addDays } from '../../../src/lib/core/calendar/manipulation';
import { FiguresError } from '../../../src/lib/core/figures/types';
import {
	readLatenessInput,
	readStatementInput,
	writeLateness,
	writeStatement
} from '../../../src/lib/core/settlement/json';
import { lateness } from '../../../src/lib/core/settlement/lateness';
import {
	ACCOUNT_TYPES,
	canBeSettled,
	signed,
	statement,
	type StatementItem
} from '../../../src/lib/core/settlement/statement';

interface Case {
	name: string;
	input: Record<string, unknown>;
	output?: object;
	error?: { path: string };
}
const casesOf = (name: string) =>
	JSON.parse(readFileSync(`tests/cases/${name}.json`, 'utf8')) as Case[];

function pathOf(run: () => unknown): string {
	try {
		run();
	} catch (error) {
		if (error instanceof FiguresError) return error.path;
		throw error;
	}
	return 'no error';
}
function hold(cases: Case[], run: (input: unknown) => unknown): void {
	for (const { name, input, output, error } of cases)
		it(name, () => {
			if (error) expect(pathOf(() => run(input))).to.equal(error.path);
			else expect(run(input)).to.deep.equal(output);
		});
}

describe('lateness of a debt', () => {
	const run = (input: unknown) => writeLateness(lateness(readLatenessInput(input)));
	const cases = casesOf('lateness');
	hold(cases, run);

	const base = cases[0]!.input;
	for (const [what, change, path] of [
		['no rates for a business', { referenceRates: null }, 'referenceRates'],
		[
			'a rate from any day',
			{ referenceRates: [{ from: '2026-02-01', rate: '4' }] },
			'referenceRates'
		],
		[
			'two rates for a half year',
			{ referenceRates: [1, 2].map((n) => ({ from: '2026-01-01', rate: String(n) })) },
			'referenceRates'
		],
		[
			'a rate as a number',
			{ referenceRates: [{ from: '2026-01-01', rate: 4 }] },
			'referenceRates.0.rate'
		],
		[
			'a payment below zero',
			{ payments: [{ date: '2026-01-01', amount: '-1' }] },
			'payments.0.amount'
		],
		['a day that is none', { due: '2026-02-30' }, 'due'],
		['what it does not know', { late: true }, 'late']
	] as const)
		it(`refuses ${what}`, () => expect(pathOf(() => run({ ...base, ...change }))).to.equal(path));

	it('asks no rates of a household, and keeps the rate of the day it turned late', () => {
		expect(run({ ...base, business: false, referenceRates: null })).to.include({ rate: null });
		const rates = [
			{ from: '2026-01-01', rate: '4.00' },
			{ from: '2026-07-01', rate: '1' }
		];
		expect(
			run({ ...base, due: '2026-06-29', asOf: '2026-12-31', referenceRates: rates })
		).to.include({ rate: '12' });
		expect(
			run({ ...base, due: '2026-06-30', asOf: '2026-12-31', referenceRates: rates })
		).to.include({ rate: '9' });
	});

	it('steps the fixed sum by what stood open at the end of the due day', () => {
		const sums = ['999.99', '1000', '9999.99', '10000'].map(
			(total) => (run({ ...base, total }) as { compensation: string }).compensation
		);
		expect(sums).to.deep.equal(['40.00', '70.00', '70.00', '100.00']);
	});

	it('is the sum over each single day, rounded once', () => {
		fc.assert(
			fc.property(
				fc.bigInt(0n, 5_000_000n),
				fc.integer({ min: 0, max: 150 }),
				fc.array(fc.tuple(fc.integer({ min: -20, max: 170 }), fc.bigInt(0n, 900_000n)), {
					maxLength: 5
				}),
				(total, late, parts) => {
					const due = '2026-01-31';
					const payments = parts.map(([day, amount]) => ({ date: addDays(due, day), amount }));
					const referenceRates = [{ from: '2026-01-01', rate: { units: 375n, scale: 2 } }];
					const asOf = addDays(due, late);
					const result = lateness({ total, due, asOf, business: true, payments, referenceRates });
					let penceDays = 0n;
					for (let day = 1; day <= late; day++) {
						const paid = payments
							.filter((one) => one.date <= addDays(due, day))
							.reduce((sum, one) => sum + one.amount, 0n);
						if (paid < total) penceDays += total - paid;
					}
					const exact = penceDays * 1175n;
					const rounded = (2n * exact + 3_650_000n) / 7_300_000n;
					expect(result.interest).to.equal(rounded);
				}
			)
		);
	});
});

describe('statement of an account', () => {
	const run = (input: unknown) => writeStatement(statement(readStatementInput(input)));
	hold(casesOf('statement'), run);

	const item = { id: 'A', type: 'invoice', date: '2026-11-01', due: '2026-12-01', amount: '10' };
	const paid = { id: 'P', type: 'payment', date: '2026-11-02', amount: '4' };
	const open = { style: 'openItems', asOf: '2026-11-24' };
	for (const [what, input, path] of [
		['a first day on open items', { ...open, from: '2026-11-01', items: [] }, 'from'],
		['activity without a first day', { ...open, style: 'activity', items: [] }, 'from'],
		['two invoices of one id', { ...open, items: [item, paid, item] }, 'items.2.id'],
		['an invoice without due day', { ...open, items: [{ ...item, due: null }] }, 'items.0.due'],
		['a due day on a payment', { ...open, items: [{ ...paid, due: '2026-11-02' }] }, 'items.0.due'],
		[
			'what stands against nothing',
			{ ...open, items: [{ ...paid, against: 'B' }] },
			'items.0.against'
		],
		[
			'an invoice against another',
			{ ...open, items: [item, { ...item, id: 'B', against: 'A' }] },
			'items.1.against'
		],
		['an amount of nothing', { ...open, items: [{ ...item, amount: '0.00' }] }, 'items.0.amount']
	] as const)
		it(`refuses ${what}`, () => expect(pathOf(() => run(input))).to.equal(path));

	it('leaves unapplied what stands against a later invoice, and takes refunds from the earliest', () => {
		const items = [
			{ ...item, date: '2026-12-01' },
			{ ...paid, against: 'A' },
			{ ...paid, id: 'Q', date: '2026-11-03' },
			{ id: 'R', type: 'refund', date: '2026-11-01', amount: '6' }
		];
		expect(run({ ...open, items })).to.deep.include({
			rows: [{ id: 'Q', date: '2026-11-03', amount: '-4.00', left: '-2.00' }],
			balance: '-2.00'
		});
	});

	it('has one balance: of the items, of the ages, of both styles', () => {
		const day = fc.integer({ min: 0, max: 200 }).map((n) => addDays('2026-05-01', n));
		const account = fc.array(
			fc.record({
				type: fc.constantFrom(...ACCOUNT_TYPES),
				date: day,
				due: day,
				amount: fc.bigInt(1n, 5000n),
				target: fc.option(fc.nat(30), { nil: null })
			}),
			{ maxLength: 25 }
		);
		fc.assert(
			fc.property(account, day, day, (rows, asOf, from) => {
				const settled = rows.flatMap(({ type }, n) => (canBeSettled(type) ? [String(n)] : []));
				const items = rows.map(({ target, due, ...row }, n): StatementItem => ({
					...row,
					id: String(n),
					due: canBeSettled(row.type) ? due : null,
					against:
						target === null || canBeSettled(row.type) || row.type === 'refund' || !settled.length
							? null
							: settled[target % settled.length]!
				}));
				const whole = items
					.filter((one) => one.date <= asOf)
					.reduce((sum, one) => sum + signed(one), 0n);
				for (const first of [null, from]) {
					const result = statement({ asOf, from: first, ageing: 'dueDate', items });
					expect(result.balance).to.equal(whole);
					expect(Object.values(result.ageing).reduce((sum, one) => sum + one, 0n)).to.equal(whole);
					if (first === null)
						expect(result.rows.reduce((sum, row) => sum + row.left, 0n)).to.equal(whole);
					else expect(result.rows.at(-1)?.left ?? result.opening).to.equal(whole);
				}
			})
		);
	});
});
