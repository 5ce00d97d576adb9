import { expect } from 'chai';
import fc from 'fast-check';
import { describe, it } from 'mocha';
import {
	monthEnds,
	openOn,
	owedOverTime,
	type DebtChange
} from '../../../src/lib/core/settlement/history';

const change = (documentId: number, date: string, amount: bigint, dueDate = '2026-03-31') =>
	({ documentId, dueDate, date, amount }) satisfies DebtChange;

describe('what stood open at a past day', () => {
	const changes = [
		change(1, '2026-03-01', 100_00n),
		change(1, '2026-04-10', -40_00n),
		change(1, '2026-07-05', -60_00n),
		change(2, '2026-05-01', 50_00n, '2026-05-31'),
		change(2, '2026-05-20', -80_00n, '2026-05-31')
	];

	it('counts what had happened by its end, aged by that day; what was overpaid counts for nothing', () => {
		expect(openOn(changes, '2026-03-31')).to.deep.equal([
			{ documentId: 1, age: 'notDue', open: 100_00n }
		]);
		expect(openOn(changes, '2026-05-01')).to.deep.equal([
			{ documentId: 1, age: '31-60', open: 60_00n },
			{ documentId: 2, age: 'notDue', open: 50_00n }
		]);
		expect(openOn(changes, '2026-07-05')).to.deep.equal([]);
		expect(openOn(changes, '2026-02-28')).to.deep.equal([]);
		const [may] = owedOverTime(changes, ['2026-05-01']);
		expect(may).to.include({ notDue: 50_00n, '31-60': 60_00n, over90: 0n });
	});

	it('is the same in whatever order the changes are told', () => {
		const sums = (of: DebtChange[]) => owedOverTime(of, ['2026-04-30', '2026-05-31']);
		fc.assert(
			fc.property(fc.shuffledSubarray(changes, { minLength: changes.length }), (shuffled) => {
				expect(sums(shuffled)).to.deep.equal(sums(changes));
			})
		);
	});

	it('is asked at the ends of months, and today', () => {
		expect(monthEnds('2026-03-15', 3)).to.deep.equal(['2026-01-31', '2026-02-28', '2026-03-15']);
		expect(monthEnds('2028-03-31', 2)).to.deep.equal(['2028-02-29', '2028-03-31']);
		expect(monthEnds('2026-11-24')).to.have.length(12);
	});
});
