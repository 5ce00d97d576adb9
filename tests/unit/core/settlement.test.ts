import { expect } from 'chai';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, it } from 'mocha';
import { FiguresError } from '../../../src/lib/core/figures/types';
import { readSettlementInput, writeSettlement } from '../../../src/lib/core/settlement/json';
import { mostThatFits, settle } from '../../../src/lib/core/settlement/settle';

const cases = JSON.parse(readFileSync('tests/cases/settlement.json', 'utf8')) as {
	name: string;
	input: unknown;
	output?: object;
	error?: { path: string };
}[];
const run = (input: unknown) => writeSettlement(settle(readSettlementInput(input)));

function pathOf(input: unknown): string {
	try {
		run(input);
	} catch (error) {
		if (error instanceof FiguresError) return error.path;
		throw error;
	}
	return 'no error';
}

describe('settlement of an invoice', () => {
	for (const { name, input, output, error } of cases) {
		it(name, () => {
			if (error) expect(pathOf(input)).to.equal(error.path);
			else expect(run(input)).to.deep.equal(output);
		});
	}

	const payment = { date: '2026-11-20', type: 'payment', amount: '10' };
	const refused: [string, unknown, string][] = [
		['a deduction above the total', { total: '10', deduction: '10.01', entries: [] }, 'deduction'],
		[
			'something withheld where no deduction is expected',
			{ total: '10', entries: [{ ...payment, withheld: '1' }] },
			'entries.0.withheld'
		],
		[
			'more withheld than the whole',
			{ total: '10', deduction: '2', entries: [{ ...payment, withheld: '10.01' }] },
			'entries.0.withheld'
		],
		[
			'something withheld on a credit',
			{ total: '10', deduction: '2', entries: [{ ...payment, type: 'credit', withheld: '0' }] },
			'entries.0.withheld'
		],
		[
			'more given back than was withheld',
			{
				total: '10',
				deduction: '2',
				entries: [
					{ ...payment, amount: '8' },
					{ ...payment, type: 'refund', withheld: '2.01' }
				]
			},
			'entries.1.withheld'
		],
		[
			'something given back before it was withheld',
			{
				total: '10',
				deduction: '2',
				entries: [
					{ ...payment, amount: '8' },
					{ ...payment, date: '2026-11-19', type: 'refund', withheld: '0.01' }
				]
			},
			'entries.1.withheld'
		],
		[
			'a deduction on a payment',
			{ total: '10', deduction: '2', entries: [{ ...payment, deduction: '0' }] },
			'entries.0.deduction'
		],
		[
			'a payment of nothing',
			{ total: '10', entries: [{ ...payment, amount: '0.00' }] },
			'entries.0.amount'
		]
	];
	for (const [name, input, path] of refused)
		it(`refuses ${name}`, () => expect(pathOf(input)).to.equal(path));

	it('calls a contractor that pays total minus deduction in any number of parts paid in full', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 100, max: 10_000_000 }),
				fc.integer({ min: 0, max: 30 }),
				fc.array(fc.integer({ min: 1, max: 1000 }), { minLength: 1, maxLength: 6 }),
				(total, rate, weights) => {
					const deduction = Math.floor((total * rate) / 100);
					const payable = BigInt(total - deduction);
					const whole = BigInt(weights.reduce((sum, weight) => sum + weight, 0));
					let before = 0n;
					let running = 0n;
					const entries = weights.flatMap((weight) => {
						running += BigInt(weight);
						const upTo = (payable * running) / whole;
						const amount = upTo - before;
						before = upTo;
						return amount > 0n
							? [
									{
										date: '2026-11-20',
										type: 'payment' as const,
										amount,
										withheld: null,
										deduction: null
									}
								]
							: [];
					});
					const result = settle({ total: BigInt(total), deduction: BigInt(deduction), entries });
					expect(result.outstanding).to.equal(0n);
					expect(result.overpaid).to.equal(0n);
					expect(result.withheld).to.equal(BigInt(deduction));
				}
			)
		);
	});
});

describe('what moves from one invoice to another', () => {
	it('is the most that fits together with its deduction, to the penny', () => {
		const amount = fc.bigInt({ min: 1n, max: 100_000n });
		fc.assert(
			fc.property(amount, amount, fc.nat(100), (cash, open, percent) => {
				const withheld = (cash * BigInt(percent)) / 100n;
				const total = cash + withheld;
				const entry = { date: '2026-11-20', withheld: null, deduction: null };
				const from = settle({
					total,
					deduction: withheld,
					entries: [
						{ ...entry, type: 'payment', amount: cash, withheld },
						{ ...entry, type: 'credit', amount: total, deduction: withheld }
					]
				});
				const most = mostThatFits(from, open);
				expect(most.cash + most.withheld <= open).to.equal(true);
				// Written out: the share of the deduction, half up; a penny more would be too much.
				const along = (of: bigint) => (2n * withheld * of + cash) / (2n * cash);
				expect(most.withheld).to.equal(along(most.cash));
				const next = most.cash + 1n;
				expect(next > cash || next + along(next) > open).to.equal(true);
			})
		);
	});
});
