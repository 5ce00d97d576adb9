// Quotes: the recorded cases, and what holds for any choice.
import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import fc from 'fast-check';
import { describe, it } from 'mocha';
import { computations } from '../../../../src/lib/core/computations';
import { computeInvoice } from '../../../../src/lib/core/figures/invoice';
import { FiguresError } from '../../../../src/lib/core/figures/types';
import { computeQuote, invoiceOf, type QuoteInput } from '../../../../src/lib/core/quotes/figures';
import { measuredQuantity, measuredWords } from '../../../../src/lib/core/quotes/measure';
import { stagePlan } from '../../../../src/lib/core/quotes/chosen';
import { GB } from '../../../../src/lib/core/regimes/gb';

interface Case {
	name: string;
	input: unknown;
	output?: object;
	error?: { path: string };
}
const cases = JSON.parse(readFileSync('tests/cases/quote.json', 'utf8')) as Case[];

describe('the recorded quotes', () => {
	for (const { name, input, output, error } of cases)
		it(name, () => {
			if (error)
				expect(() => computations['quote']!(input))
					.to.throw(FiguresError)
					.with.property('path', error.path);
			else expect(computations['quote']!(input)).to.deep.equal(output);
		});
});

const decimal = (units: number, scale = 2) => ({ units: BigInt(units), scale });
const line = fc.record({
	kind: fc.constantFrom('labour' as const, 'materials' as const),
	quantity: fc.integer({ min: 1, max: 5000 }).map((n) => decimal(n)),
	unitPrice: fc.integer({ min: 0, max: 90_000 }).map((n) => decimal(n)),
	vat: fc.constantFrom('standard' as const, 'reduced' as const),
	part: fc.constantFrom('in', 'extra', 'A:1', 'A:2', 'B:1', 'B:2')
});
const quotes = fc
	.record({ lines: fc.array(line, { minLength: 1, maxLength: 9 }), withVat: fc.boolean() })
	.map(({ lines, withVat }): QuoteInput => ({
		date: '2026-11-02',
		currency: 'GBP',
		sterlingRate: null,
		pricesIncludeVat: withVat,
		vatRounding: 'nearest',
		seller: { vatRegistered: true },
		customer: { kind: 'household', vatRegistered: false, cisRegistered: false, endUser: false },
		contract: 'construction',
		cisRate: null,
		discount: null,
		retention: null,
		deposit: { percent: decimal(25, 0) },
		chosen: { options: {}, extras: [] },
		lines: lines.map(({ part, ...one }) => ({
			...one,
			discount: null,
			cost: null,
			extra: part === 'extra',
			choice: part.includes(':') ? { group: part[0]!, option: part[2]! } : null
		}))
	}));

/** Every way to choose on it, written down without the code that is tested. */
function ways({ lines }: QuoteInput): number[][] {
	const groups = [...new Set(lines.flatMap(({ choice }) => choice?.group ?? []))];
	const extras = lines.flatMap(({ extra }, index) => (extra ? [index] : []));
	let all: Record<string, string>[] = [{}];
	for (const group of groups) {
		const options = [
			...new Set(lines.flatMap(({ choice }) => (choice?.group === group ? choice.option : [])))
		];
		all = all.flatMap((one) => options.map((option) => ({ ...one, [group]: option })));
	}
	const subsets = extras.reduce<number[][]>(
		(sets, extra) => [...sets, ...sets.map((set) => [...set, extra])],
		[[]]
	);
	return all.flatMap((options) =>
		subsets.map((chosen) =>
			lines.flatMap(({ choice, extra }, index) =>
				extra
					? chosen.includes(index)
						? [index]
						: []
					: !choice || options[choice.group] === choice.option
						? [index]
						: []
			)
		)
	);
}

describe('any quote', () => {
	it('comes to what the invoice of the chosen lines does, within its range, which is the range of all ways', () => {
		fc.assert(
			fc.property(quotes, (input) => {
				const every = ways(input).filter((included) => included.length > 0);
				const totals = every.map(
					(included) => computeInvoice(invoiceOf(input, included), GB).total
				);
				let quote;
				try {
					quote = computeQuote(input, GB);
				} catch (error) {
					// Nothing but extras, and none of them chosen.
					expect(input.lines.every(({ extra }) => extra)).to.equal(true);
					return void expect((error as FiguresError).path).to.equal('chosen');
				}
				const of = computeInvoice(invoiceOf(input, quote.included), GB);
				expect(quote.figures.total).to.equal(of.total);
				expect(quote.deposit).to.equal((of.total * 25n + 50n) / 100n);
				// The range is by net: where rates differ, what is cheaper without VAT can be dearer with it.
				const oneRate = new Set(input.lines.map(({ vat }) => vat)).size === 1;
				if (input.pricesIncludeVat || oneRate) {
					expect(quote.lowest).to.equal(totals.reduce((a, b) => (a < b ? a : b)));
					expect(quote.highest).to.equal(totals.reduce((a, b) => (a > b ? a : b)));
				}
			}),
			{ seed: 7, numRuns: 300 }
		);
	});
});

describe('a measured quantity', () => {
	const wall = { length: '4.2', width: '', height: '2.4', off: [{ width: '0.9', height: '2' }] };
	it('is what the sides come to, less the openings, half up to two decimals', () => {
		// 10.08 − 1.80
		expect(measuredQuantity(wall)).to.equal('8.28');
		expect(measuredQuantity({ ...wall, length: '1.005', height: '1', off: [] })).to.equal('1.01');
		expect(measuredQuantity({ length: '2', width: '3', height: '4', off: [] })).to.equal('24');
		expect(measuredWords(wall)).to.equal('4.2 × 2.4 less 0.9 × 2');
	});
	it('is none where nothing is given, a side is no number, or more is taken off than there is', () => {
		expect(measuredQuantity({ length: '', width: '', height: '', off: [] })).to.equal(null);
		expect(measuredQuantity({ ...wall, length: 'long' })).to.equal(null);
		expect(measuredQuantity({ ...wall, off: [{ width: '9', height: '9' }] })).to.equal(null);
	});
});

describe('the plan of stages', () => {
	it('adds up to the whole, the last being the rest', () => {
		const plan = stagePlan(
			{
				deposit: 810_00n,
				stages: [
					{ title: 'Laths up', percent: '37.5' },
					{ title: 'Done', percent: '' }
				]
			},
			3240_00n
		);
		expect(plan.map(({ amount }) => amount)).to.deep.equal([810_00n, 1215_00n, 1215_00n]);
		expect(stagePlan({ deposit: 0n, stages: [] }, 100n)).to.deep.equal([]);
		const more = stagePlan(
			{
				deposit: 90_00n,
				stages: [
					{ title: 'a', percent: '50' },
					{ title: 'b', percent: '1' }
				]
			},
			100_00n
		);
		expect(more.map(({ amount }) => amount)).to.deep.equal([90_00n, 10_00n, 0n]);
	});
});
