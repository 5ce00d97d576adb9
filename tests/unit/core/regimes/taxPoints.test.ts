// When a supply takes place: the computed examples, each rule a day each side, and what must hold for any input.
import { expect } from 'chai';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, it } from 'mocha';
import { addDays } from '../../../../src/lib/core/calendar/manipulation';
import { FiguresError } from '../../../../src/lib/core/figures/types';
import { readTaxPointsInput, writeTaxPoints } from '../../../../src/lib/core/regimes/gb/json';
import {
	TAX_POINT_RULES,
	taxPoints,
	type TaxPointsInput
} from '../../../../src/lib/core/regimes/gb/taxPoints';

interface Case {
	name: string;
	input: unknown;
	output?: object;
	error?: { path: string };
}
const cases = JSON.parse(readFileSync('tests/cases/taxPoints.json', 'utf8')) as Case[];
const run = (input: unknown) => writeTaxPoints(taxPoints(readTaxPointsInput(input)));
const REGISTERED = { from: '2020-01-01', until: null };
const SUPPLY: TaxPointsInput = {
	rule: 'work',
	workFinished: '2026-11-10',
	issued: null,
	total: 1200_00n,
	payments: [],
	registered: REGISTERED
};
const days = (more: Partial<TaxPointsInput>) =>
	taxPoints({ ...SUPPLY, ...more }).map(({ date, amount, because, vat }) =>
		[date.slice(5), Number(amount) / 100, because, vat ? 'VAT' : 'none'].join(' ')
	);

describe('tax points', () => {
	for (const { name, input, output, error } of cases)
		it(name, () => {
			if (!error) return expect(run(input)).to.deep.equal(output);
			return expect(() => run(input))
				.to.throw(FiguresError)
				.with.property('path', error.path);
		});

	it('move to an invoice within 14 days of the end of the work, not on the fifteenth', () => {
		expect(days({ issued: '2026-11-24' })).to.deep.equal(['11-24 1200 invoice VAT']);
		expect(days({ issued: '2026-11-25' })).to.deep.equal(['11-10 1200 work VAT']);
		expect(days({ issued: '2026-11-09' })).to.deep.equal(['11-09 1200 invoice VAT']);
	});

	it('are made by money that came before work and invoice, not on their day', () => {
		const paid = (date: string) => ({ payments: [{ date, amount: 500_00n }] });
		expect(days(paid('2026-11-09'))).to.deep.equal(['11-09 500 payment VAT', '11-10 700 work VAT']);
		expect(days(paid('2026-11-10'))).to.deep.equal(['11-10 1200 work VAT']);
		expect(days({ ...paid('2026-11-05'), issued: '2026-11-05' })).to.deep.equal([
			'11-05 1200 invoice VAT'
		]);
	});

	it('follow registration on each day by itself, and no invoice from outside it', () => {
		const from = { registered: { from: '2026-11-15', until: null } };
		expect(days({ ...from, issued: '2026-11-20' }), 'work before it').to.deep.equal([
			'11-10 1200 work none'
		]);
		const until = { registered: { from: '2020-01-01', until: '2026-11-15' } };
		expect(days({ ...until, issued: '2026-11-15' })).to.deep.equal(['11-15 1200 invoice VAT']);
		expect(days({ ...until, issued: '2026-11-16' })).to.deep.equal(['11-10 1200 work VAT']);
		expect(days({ registered: null, issued: '2026-11-12' })).to.deep.equal([
			'11-10 1200 work none'
		]);
	});

	for (const rule of ['stages', 'continuous', 'retention'] as const)
		it(`${rule} wait for money or the invoice, however long`, () => {
			const none = { rule, workFinished: null };
			expect(days(none)).to.deep.equal([]);
			expect(days({ ...none, issued: '2027-08-01' })).to.deep.equal(['08-01 1200 invoice VAT']);
			expect(days({ ...none, payments: [{ date: '2026-12-01', amount: 2000_00n }] })).to.deep.equal(
				['12-01 1200 payment VAT']
			);
		});

	it('never come to more than the supply, to all of it once it is invoiced or done, in order of date', () => {
		const day = fc.integer({ min: 0, max: 60 }).map((n) => addDays('2026-10-01', n));
		const maybe = fc.option(day, { nil: null });
		fc.assert(
			fc.property(
				fc.constantFrom(...TAX_POINT_RULES),
				maybe,
				maybe,
				fc.bigInt({ min: 1n, max: 100_000n }),
				fc.array(fc.record({ date: day, amount: fc.bigInt({ min: 1n, max: 60_000n }) })),
				fc.option(fc.record({ from: day, until: maybe }), { nil: null }),
				(rule, finished, issued, total, payments, registered) => {
					const input = {
						rule,
						workFinished: rule === 'work' ? finished : null,
						issued,
						total,
						payments,
						registered
					};
					const points = taxPoints(input);
					const sum = points.reduce((all, one) => all + one.amount, 0n);
					expect(sum <= total).to.equal(true);
					const vatInvoice =
						issued !== null &&
						registered !== null &&
						issued >= registered.from &&
						issued <= (registered.until ?? '9999-12-31');
					if (vatInvoice || input.workFinished) expect(sum).to.equal(total);
					const dates = points.map((one) => one.date);
					expect(dates).to.deep.equal([...dates].sort());
					expect(points.every((one) => one.amount > 0n)).to.equal(true);
				}
			)
		);
	});
});
