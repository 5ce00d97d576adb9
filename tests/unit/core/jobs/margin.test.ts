// What is left of a job, against sums done by hand.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import { addMargins, marginOf, type JobBooks } from '../../../../src/lib/core/jobs/margin';
import type { JobCost, JobLine, JobWork, TimeEntry } from '../../../../src/lib/core/jobs/types';

const LINE: JobLine = {
	id: 1,
	kind: 'labour',
	description: 'Render',
	quantity: '1',
	unit: '',
	unitPrice: '0',
	vat: 'standard',
	vatReason: '',
	discount: '',
	cost: '',
	extra: false
};
const COST: JobCost = {
	id: 1,
	date: '2026-11-20',
	kind: 'materials',
	description: 'Lime',
	quantity: '1',
	unit: '',
	unitCost: '0',
	markUp: '',
	unitPrice: '',
	vat: 'standard',
	vatReason: '',
	chargeable: false
};
const TIME: TimeEntry = {
	id: 1,
	date: '2026-11-20',
	person: '',
	minutes: 60,
	rate: '0',
	hourlyCost: '0',
	chargeable: false,
	note: ''
};
const BOOKS: JobBooks = { billed: 0n, received: 0n, withheld: 0n, complete: false };
const work = (
	lines: Partial<JobLine>[] = [],
	time: Partial<TimeEntry>[] = [],
	costs: Partial<JobCost>[] = []
): JobWork => ({
	lines: lines.map((one, id) => ({ ...LINE, id, ...one })),
	time: time.map((one, id) => ({ ...TIME, id, ...one })),
	costs: costs.map((one, id) => ({ ...COST, id, ...one }))
});

describe('a margin', () => {
	it('is income less what was spent, of the income in tenths of a percent', () => {
		const margin = marginOf(
			work(
				[{ quantity: '3', unitPrice: '100' }],
				[{ minutes: 90, hourlyCost: '20' }],
				[{ quantity: '2', unitCost: '35.25' }]
			),
			BOOKS
		);
		// 300.00 agreed; an hour and a half at 20.00, and twice 35.25.
		expect(margin).to.deep.equal({
			agreed: 300_00n,
			billed: 0n,
			received: 0n,
			withheld: 0n,
			costs: { materials: 70_50n, labour: 30_00n },
			labour: 30_00n,
			expected: 0n,
			spent: 100_50n,
			income: 300_00n,
			margin: 199_50n,
			perMille: 665
		});
	});

	it('counts what is chargeable as agreed, and all of it as spent', () => {
		const margin = marginOf(
			work(
				[],
				[{ minutes: 60, rate: '45', hourlyCost: '18', chargeable: true }],
				[{ unitCost: '80', markUp: '25', chargeable: true }]
			),
			BOOKS
		);
		expect(margin.agreed).to.equal(45_00n + 100_00n);
		expect(margin.spent).to.equal(18_00n + 80_00n);
	});

	it('leaves a running clock out of both', () => {
		const margin = marginOf(
			work([], [{ minutes: null, rate: '45', hourlyCost: '18', chargeable: true }]),
			BOOKS
		);
		expect(margin).to.include({ agreed: 0n, spent: 0n, perMille: null });
		expect(margin.costs).to.deep.equal({});
	});

	it('adds a helper’s time to bought labour', () => {
		const margin = marginOf(
			work(
				[],
				[{ hourlyCost: '10' }],
				[
					{ kind: 'labour', unitCost: '50' },
					{ kind: 'labour', unitCost: '5' }
				]
			),
			BOOKS
		);
		expect(margin.costs).to.deep.equal({ labour: 65_00n });
		expect(margin.labour, 'time alone').to.equal(10_00n);
	});

	it('takes what was billed where that is more, or where all is billed', () => {
		const income = (billed: bigint, complete = false) =>
			marginOf(work([{ unitPrice: '100' }]), { ...BOOKS, billed, complete }).income;
		expect(income(99_99n)).to.equal(100_00n);
		expect(income(100_00n)).to.equal(100_00n);
		expect(income(100_01n)).to.equal(100_01n);
		expect(income(60_00n, true)).to.equal(60_00n);
		expect(income(0n, true)).to.equal(0n);
	});

	it('expects what the agreed lines cost, of kinds on which nothing was spent yet', () => {
		const lines: Partial<JobLine>[] = [
			{ unitPrice: '400', cost: '30' },
			{ kind: 'materials', unitPrice: '100', cost: '80.00' },
			{ kind: 'materials', unitPrice: '10', cost: '5.50' },
			{ kind: 'plantHire', unitPrice: '50', cost: '' }
		];
		const before = marginOf(work(lines), BOOKS);
		expect(before.costs).to.deep.equal({ labour: 30_00n, materials: 85_50n });
		expect([before.expected, before.spent, before.margin]).to.deep.equal([
			115_50n,
			115_50n,
			444_50n
		]);
		// A first bag of lime: from now on what is spent on materials counts.
		const begun = marginOf(work(lines, [], [{ unitCost: '12' }]), BOOKS);
		expect(begun.costs).to.deep.equal({ labour: 30_00n, materials: 12_00n });
		expect([begun.expected, begun.spent]).to.deep.equal([30_00n, 42_00n]);
		expect(addMargins([before, begun]).expected).to.equal(145_50n);
	});

	it('may be a loss, and has no share of nothing', () => {
		const loss = marginOf(work([{ unitPrice: '80' }], [], [{ unitCost: '100' }]), BOOKS);
		expect(loss.margin).to.equal(-20_00n);
		expect(loss.perMille).to.equal(-250);
		expect(marginOf(work([], [], [{ unitCost: '1' }]), BOOKS)).to.include({
			margin: -1_00n,
			perMille: null
		});
	});

	it('asks for the VAT in a price line by line, by its rate', () => {
		const asked: [bigint, string][] = [];
		const margin = marginOf(
			work([{ unitPrice: '120' }, { unitPrice: '105', vat: 'reduced' }]),
			BOOKS,
			(amount, vat) => {
				asked.push([amount, vat]);
				return vat === 'reduced' ? 100_00n : 100_00n;
			}
		);
		expect(asked).to.deep.equal([
			[120_00n, 'standard'],
			[105_00n, 'reduced']
		]);
		expect(margin.agreed).to.equal(200_00n);
	});

	it('of many is that of their sums, not the sum of their shares', () => {
		const one = marginOf(work([{ unitPrice: '100' }], [], [{ unitCost: '50' }]), {
			...BOOKS,
			billed: 20_00n,
			received: 10_00n,
			withheld: 2_00n
		});
		const other = marginOf(
			work([{ unitPrice: '300' }], [{ hourlyCost: '30' }], [{ kind: 'travel', unitCost: '1' }]),
			BOOKS
		);
		const both = addMargins([one, other]);
		expect(both).to.deep.equal({
			agreed: 400_00n,
			billed: 20_00n,
			received: 10_00n,
			withheld: 2_00n,
			costs: { materials: 50_00n, labour: 30_00n, travel: 1_00n },
			labour: 30_00n,
			expected: 0n,
			spent: 81_00n,
			income: 400_00n,
			margin: 319_00n,
			perMille: 798
		});
		expect(addMargins([])).to.include({ income: 0n, perMille: null });
	});
});
