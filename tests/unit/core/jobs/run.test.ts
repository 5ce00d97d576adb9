// Which jobs of a bill run stand on one invoice, what keeps them apart, and how they are shown.
import { expect } from 'chai';
import { describe, it } from 'mocha';
import type { Billable } from '../../../../src/lib/core/jobs/billing';
import {
	isAskedFor,
	leftOutBecause,
	planRun,
	type RunJob,
	type RunOptions,
	type Waiting
} from '../../../../src/lib/core/jobs/run';
import type { SheetLine, SheetRow } from '../../../../src/lib/core/sheet/types';

let ids = 0;
const item = (unitPrice: string, more: Partial<Billable> = {}): Billable => ({
	part: { type: 'line', id: ++ids },
	kind: 'labour',
	description: 'Render',
	quantity: '1',
	unit: '',
	unitPrice,
	vat: 'standard',
	vatReason: '',
	discount: '',
	cost: '',
	date: null,
	extra: false,
	amount: BigInt(Math.round(Number(unitPrice) * 100)),
	...more
});
const job = (id: number, more: Partial<RunJob> = {}): RunJob => ({
	id,
	customerId: 1,
	customerKind: 'business',
	billToId: null,
	siteId: 5,
	contract: null,
	contractReason: '',
	pricesIncludeVat: false,
	retention: '',
	retentionDue: '',
	finishedOn: '2026-11-20',
	standing: 'A',
	billables: [item('100')],
	label: (what) => `J-${id}${what ? `, ${what}` : ''}`,
	number: `J-${id}`,
	...more
});
const plan = (jobs: RunJob[], options: Partial<RunOptions> = {}) =>
	planRun(
		jobs,
		{ split: 'customer', shape: 'job', ...options },
		(what) => `November${what ? `, ${what}` : ''}`
	);
const lines = (rows: readonly SheetRow[]) =>
	rows.filter((row): row is SheetLine => row.type === 'line');

describe('the invoices of a run', () => {
	it('are one for each customer, in the order of the jobs', () => {
		const made = plan([job(3, { customerId: 2 }), job(1), job(2, { customerId: 2 })]);
		expect(made.map((one) => [one.customerId, one.jobIds])).to.deep.equal([
			[2, [3, 2]],
			[1, [1]]
		]);
		expect(made.every((one) => one.splitBecause.length === 0)).to.equal(true);
		expect(plan([])).to.deep.equal([]);
	});

	it('or one for each job, without a reason: it was asked for', () => {
		const made = plan([job(1), job(2)], { split: 'job' });
		expect(made.map((one) => one.jobIds)).to.deep.equal([[1], [2]]);
		expect(made.map((one) => one.splitBecause)).to.deep.equal([[], []]);
	});

	const apart: [string, Partial<RunJob>, RegExp][] = [
		['bill-tos', { billToId: 9 }, /go.* to different people/],
		['classes of contract', { contract: 'construction' }, /different classes/],
		['ways of pricing', { pricesIncludeVat: true }, /some prices include VAT/],
		['standings and rates', { standing: 'B' }, /standing or a rate changed/],
		['retentions', { retention: '5' }, /different parts are held back/],
		['finished and unfinished work', { finishedOn: null }, /still under way/]
	];
	for (const [what, change, because] of apart)
		it(`never mix ${what}, and say so`, () => {
			const made = plan([job(1), job(2, change), job(3)]);
			expect(made.map((one) => one.jobIds)).to.deep.equal([[1, 3], [2]]);
			for (const one of made) {
				expect(one.splitBecause).to.have.length(1);
				expect(one.splitBecause[0]).to.match(because);
			}
		});

	it('do not mind different sites, days or kinds of items', () => {
		const made = plan([
			job(1),
			job(2, { siteId: 6, finishedOn: '2026-11-01', billables: [item('1', { kind: 'travel' })] })
		]);
		expect(made).to.have.length(1);
	});

	it('tell every reason that keeps a customer’s jobs apart, to that customer alone', () => {
		const made = plan([
			job(1),
			job(2, { standing: 'B', retention: '5' }),
			job(3, { customerId: 2 })
		]);
		expect(made[0]!.splitBecause).to.have.length(2);
		expect(made[2]!.splitBecause).to.deep.equal([]);
	});
});

describe('an invoice of a run', () => {
	it('carries what its jobs agree on: the last day, the site, the number, the class', () => {
		const sheet = plan([
			job(1, {
				customerKind: 'contractor',
				contract: 'construction',
				retention: '5',
				retentionDue: '2027-05-01'
			})
		])[0]!.sheet;
		expect(sheet).to.include({
			customerId: 1,
			siteId: 5,
			contract: 'construction',
			workFinished: '2026-11-20',
			reference: 'J-1',
			retention: '5',
			retentionDue: '2027-05-01',
			pricesIncludeVat: false
		});
		const both = plan([
			job(1, { finishedOn: '2026-11-03' }),
			job(2, { siteId: 6, finishedOn: '2026-11-09' })
		])[0]!.sheet;
		expect(both).to.include({ siteId: null, workFinished: '2026-11-09', reference: '' });
		expect(
			plan([job(1, { contract: 'construction' })])[0]!.sheet.contract,
			'no contractor'
		).to.equal(null);
		expect(plan([job(1, { finishedOn: null })])[0]!.sheet.workFinished).to.equal('');
		expect(plan([job(1, { billToId: 9 })])[0]!.sheet.billToId).to.equal(9);
	});

	it('shows each job as a line of its own', () => {
		const { rows } = plan([job(1, { billables: [item('60'), item('40')] }), job(2)])[0]!.sheet;
		expect(
			lines(rows).map((row) => [row.description, row.quantity, row.unitPrice, row.jobId])
		).to.deep.equal([
			['J-1', '1', '100.00', 1],
			['J-2', '1', '100.00', 2]
		]);
		expect(rows).to.have.length(2);
	});

	it('or every item under its job', () => {
		const { rows } = plan(
			[job(1, { billables: [item('60'), item('40', { description: 'Lime' })] }), job(2)],
			{
				shape: 'items'
			}
		)[0]!.sheet;
		expect(
			rows.map((row) =>
				row.type === 'heading' ? `# ${row.text}` : row.type === 'line' ? row.description : ''
			)
		).to.deep.equal(['# J-1', 'Render', 'Lime', '# J-2', 'Render']);
		expect(new Set(rows.map((row) => row.id)).size, 'no two rows of one name').to.equal(5);
	});

	it('or the period as one line for each rate, while each job keeps its own', () => {
		const { rows } = plan(
			[
				job(1, { billables: [item('60'), item('5', { vat: 'zero', vatReason: 'newDwelling' })] }),
				job(2, { billables: [item('40')] })
			],
			{ shape: 'period' }
		)[0]!.sheet;
		expect(
			rows.map((row) =>
				row.type === 'heading'
					? `# ${row.text} ${row.single}`
					: row.type === 'line'
						? `${row.vat} ${row.unitPrice} ${row.jobId}`
						: ''
			)
		).to.deep.equal([
			'# November true',
			'standard 60.00 1',
			'standard 40.00 2',
			'# November true',
			'zero 5.00 1'
		]);
	});

	it('bills each part of a job once', () => {
		const parts = (shape: RunOptions['shape']) =>
			lines(
				plan([job(1, { billables: [item('60'), item('40'), item('7', { kind: 'levy' })] })], {
					shape
				})[0]!.sheet.rows
			).flatMap((row) => row.bills ?? []);
		for (const shape of ['job', 'items', 'period'] as const) {
			const found = parts(shape).map((part) => `${part.type}${part.id}`);
			expect(new Set(found).size, shape).to.equal(found.length);
			expect(found.length, shape).to.equal(3);
		}
	});
});

describe('which jobs a run is about', () => {
	const JOB: Waiting = {
		customerId: 1,
		customerKind: 'business',
		billToId: 2,
		siteId: 3,
		labels: ['roof', 'flats'],
		state: 'finished',
		contract: null,
		finishedOn: '2026-11-10',
		staged: false
	};
	const open = { ...JOB, finishedOn: null, state: 'underWay' as const };
	for (const [what, filter, job, asked] of [
		['all of them where nothing is chosen', { from: '', to: '' }, open, true],
		['its customer', { customerId: 1 }, JOB, true],
		['not another’s', { customerId: 2 }, JOB, false],
		['its bill-to', { billToId: 2 }, JOB, true],
		['not another bill-to', { billToId: 1 }, JOB, false],
		['nobody’s bill-to', { billToId: 2 }, { ...JOB, billToId: null }, false],
		['its site', { siteId: 3 }, JOB, true],
		['not another site', { siteId: 1 }, JOB, false],
		['any of its labels', { label: 'flats' }, JOB, true],
		['not a part of a label', { label: 'flat' }, JOB, false],
		['the day it was finished, as the first', { from: '2026-11-10' }, JOB, true],
		['not a day later', { from: '2026-11-11' }, JOB, false],
		['that day, as the last', { to: '2026-11-10' }, JOB, true],
		['not a day sooner', { to: '2026-11-09' }, JOB, false],
		['no day, while it is under way', { from: '2026-01-01' }, open, false],
		['nor until a day', { to: '2026-12-31' }, open, false]
	] as const)
		it(`by ${what}`, () => expect(isAskedFor(filter, job)).to.equal(asked));

	for (const [what, choice, job, short] of [
		['what is finished is taken', {}, JOB, undefined],
		['what is under way is left', {}, open, 'under way'],
		['unless its state is chosen', { states: ['underWay'] }, open, undefined],
		['another state does not choose it', { states: ['booked'] }, open, 'under way'],
		['stages are left', {}, { ...JOB, staged: true }, 'in stages'],
		['14 days are recent', { within14: true }, JOB, undefined],
		['15 are not', { within14: true }, { ...JOB, finishedOn: '2026-11-09' }, 'older'],
		['and matter only where asked', {}, { ...JOB, finishedOn: '2026-01-09' }, undefined],
		[
			'a contractor’s contract must be known',
			{},
			{ ...JOB, customerKind: 'contractor' },
			'construction?'
		],
		['it may be none', {}, { ...JOB, customerKind: 'contractor', contract: 'none' }, undefined]
	] as const)
		it(what, () =>
			expect(
				leftOutBecause({ within14: false, ...choice }, job as Waiting, '2026-11-24')?.short
			).to.equal(short)
		);
});

it('a heading has room for 500 letters', () => {
	const [invoice] = plan([job(1, { label: () => 'x'.repeat(501) })], { shape: 'items' });
	const [first] = invoice!.sheet.rows;
	expect(first).to.deep.include({ id: 'h1', type: 'heading', text: 'x'.repeat(500) });
});
