import { expect } from 'chai';
import { describe, it } from 'mocha';
import {
	billablesOf,
	billLines,
	hoursOf,
	sellingPrice
} from '../../../../src/lib/core/jobs/billing';
import { marginOf } from '../../../../src/lib/core/jobs/margin';
import { planRun, type RunJob } from '../../../../src/lib/core/jobs/run';
import type { JobCost, JobLine, JobWork, TimeEntry } from '../../../../src/lib/core/jobs/types';
import { decideContract } from '../../../../src/lib/core/regimes/gb/contract';
import { likelyWords } from '../../../../src/lib/core/spelling';

const line = (id: number, unitPrice: string, more: Partial<JobLine> = {}): JobLine => ({
	id,
	kind: 'labour',
	description: `Line ${id}`,
	quantity: '1',
	unit: '',
	unitPrice,
	vat: 'standard',
	vatReason: '',
	discount: '',
	cost: '',
	extra: false,
	...more
});
const time = (id: number, minutes: number | null, more: Partial<TimeEntry> = {}): TimeEntry => ({
	id,
	date: '2026-11-20',
	person: 'Joss',
	minutes,
	rate: '36',
	hourlyCost: '18',
	chargeable: true,
	note: '',
	...more
});
const cost = (id: number, unitCost: string, more: Partial<JobCost> = {}): JobCost => ({
	id,
	date: '2026-11-20',
	kind: 'materials',
	description: `Cost ${id}`,
	quantity: '2',
	unit: 'bag',
	unitCost,
	markUp: '15',
	unitPrice: '',
	vat: 'standard',
	vatReason: '',
	chargeable: true,
	...more
});
const work = (more: Partial<JobWork>): JobWork => ({ lines: [], time: [], costs: [], ...more });
const making = (jobId = 1) => {
	let n = 0;
	return {
		jobId,
		newId: () => `x${++n}`,
		workDone: null,
		label: (what: string) => `The job${what ? `, ${what}` : ''}`
	};
};

describe('what of a job can be billed', () => {
	it('hours have the rate of the work, where all of that has one for one reason', () => {
		const rates = (...lines: JobLine[]) =>
			billablesOf(work({ lines, time: [time(9, 60)] }))
				.filter(({ part }) => part.type === 'time')
				.map(({ vat, vatReason }) => [vat, vatReason]);
		const zero = { vat: 'zero', vatReason: 'newDwelling' } as const;
		expect(rates(line(1, '100', zero), line(2, '50', zero))).to.deep.equal([
			['zero', 'newDwelling']
		]);
		expect(rates(line(1, '100', zero), line(2, '5', { vat: 'noSupply' }))).to.deep.equal([
			['zero', 'newDwelling']
		]);
		expect(rates(line(1, '100', zero), line(2, '50'))).to.deep.equal([['standard', '']]);
		expect(
			rates(line(1, '100', zero), line(2, '50', { ...zero, vatReason: 'energyZero' }))
		).to.deep.equal([['standard', '']]);
		expect(rates()).to.deep.equal([['standard', '']]);
	});

	it('is what was agreed, and chargeable time and costs; a running clock is not yet', () => {
		const all = billablesOf(
			work({
				lines: [line(1, '100', { discount: '10%' })],
				time: [time(2, 50), time(3, null), time(4, 60, { chargeable: false })],
				costs: [cost(5, '12.40'), cost(6, '1', { chargeable: false })]
			})
		);
		expect(all.map((one) => [one.part.type, one.part.id, one.amount, one.cost])).to.deep.equal([
			['line', 1, 90_00n, ''],
			['time', 2, 30_00n, ''],
			['cost', 5, 28_52n, '24.80']
		]);
	});

	it('an hour and a third is 1.3333; a mark-up is rounded to the penny; a list price beats it', () => {
		expect(hoursOf(80)).to.equal('1.3333');
		expect(sellingPrice(cost(1, '12.345', { markUp: '12.5' }))).to.equal('13.89');
		expect(sellingPrice(cost(1, '12', { unitPrice: '20' }))).to.equal('20');
	});

	it('as one line keeps what all of its parts say of income and cost centre, and only that', () => {
		const [one] = billLines(
			billablesOf(
				work({
					lines: [
						line(1, '100', { income: 'Repairs', centre: 'North' }),
						line(2, '50', { income: 'Repairs', centre: 'South' })
					]
				})
			),
			'single',
			making()
		);
		expect(one).to.include({ income: 'Repairs' });
		expect(one!.centre ?? '').to.equal('');
	});

	it('as one line keeps rates apart, knows the cost of its materials, and bills every part', () => {
		const lines = billLines(
			billablesOf(
				work({
					lines: [
						line(1, '100'),
						line(2, '50', { vat: 'zero', vatReason: 'x' }),
						line(3, '7', { kind: 'levy' })
					],
					costs: [cost(5, '10')]
				})
			),
			'single',
			making()
		);
		expect(lines.map((one) => [one.kind, one.vat, one.unitPrice, one.cost])).to.deep.equal([
			['labour', 'standard', '123.00', '20.00'],
			['labour', 'zero', '50.00', ''],
			['levy', 'standard', '7.00', '']
		]);
		expect(lines.flatMap((one) => one.bills!).length).to.equal(4);
	});

	it('grouped by kind, in the order of kinds, adds up to the same', () => {
		const billables = billablesOf(
			work({ lines: [line(1, '33.33')], time: [time(2, 100)], costs: [cost(5, '9.99')] })
		);
		const sum = billables.reduce((total, one) => total + one.amount, 0n);
		const lines = billLines(billables, 'kinds', making());
		expect(lines.map((one) => one.description)).to.deep.equal([
			'The job, labour',
			'The job, materials'
		]);
		expect(
			lines.reduce((total, one) => total + BigInt(one.unitPrice.replace('.', '')), 0n)
		).to.equal(sum);
	});
});

describe('a bill run', () => {
	const job = (id: number, more: Partial<RunJob> = {}): RunJob => ({
		id,
		contractReason: '',
		customerId: 1,
		customerKind: 'contractor',
		billToId: null,
		siteId: id,
		contract: 'construction',
		pricesIncludeVat: false,
		retention: '',
		retentionDue: '',
		finishedOn: `2026-11-0${id}`,
		standing: 'a',
		billables: billablesOf(work({ lines: [line(id, '100')] })),
		number: `J-${id}`,
		label: (what) => `J-${id}${what ?? ''}`,
		...more
	});
	const PERIOD = () => 'November';

	it('makes one invoice for each customer, with a line for each job and its day', () => {
		const [one, ...rest] = planRun([job(1), job(2)], { split: 'customer', shape: 'job' }, PERIOD);
		expect(rest).to.deep.equal([]);
		expect(
			one!.sheet.rows.map((row) => row.type === 'line' && [row.description, row.workDone])
		).to.deep.equal([
			['J-1', '2026-11-01'],
			['J-2', '2026-11-02']
		]);
		expect(one!.sheet.workFinished).to.equal('2026-11-02');
	});

	const apart: [string, Partial<RunJob>, RegExp][] = [
		['contract classes', { contract: 'none' }, /different classes/],
		['tax standings', { standing: 'b' }, /standing/],
		['bill-tos', { billToId: 9 }, /different people/],
		['ways of pricing', { pricesIncludeVat: true }, /include VAT/],
		['what is finished and what is not', { finishedOn: null }, /still under way/]
	];
	for (const [name, more, words] of apart)
		it(`never mixes ${name}, and says so`, () => {
			const plan = planRun([job(1), job(2, more)], { split: 'customer', shape: 'job' }, PERIOD);
			expect(plan).to.have.length(2);
			expect(plan[0]!.splitBecause.join()).to.match(words);
		});

	it('as one line for the period prints one row over lines that still know their jobs', () => {
		const [one] = planRun([job(1), job(2)], { split: 'customer', shape: 'period' }, PERIOD);
		const [heading, ...lines] = one!.sheet.rows;
		expect(heading).to.include({ type: 'heading', text: 'November', single: true });
		expect(lines.map((row) => row.type === 'line' && row.jobId)).to.deep.equal([1, 2]);
	});
});

describe('the margin of a job', () => {
	it('is what it brings less what it cost, whatever its invoices look like', () => {
		const done = work({
			lines: [line(1, '1000')],
			time: [time(2, 600, { chargeable: false })],
			costs: [cost(3, '100', { chargeable: false })]
		});
		const books = { billed: 450_00n, received: 400_00n, withheld: 0n, complete: false };
		const margin = marginOf(done, books);
		expect([
			margin.agreed,
			margin.spent,
			margin.labour,
			margin.margin,
			margin.perMille
		]).to.deep.equal([1000_00n, 380_00n, 180_00n, 620_00n, 620]);
		// Credited in part after everything was billed: the credit counts.
		expect(marginOf(done, { ...books, billed: 900_00n, complete: true }).margin).to.equal(520_00n);
	});
});

describe('the class of a contract', () => {
	const of = (labour: bigint, materials: bigint, vat: 'standard' | 'zero' = 'standard') =>
		decideContract([
			{ kind: 'labour', vat, net: labour },
			{ kind: 'materials', vat: 'standard', net: materials }
		]).contract;
	it('is construction above 5 %, minor up to it, none without any', () => {
		expect(of(501n, 9_499n)).to.equal('construction');
		expect(of(500n, 9_500n)).to.equal('minor');
		expect(of(0n, 9_500n)).to.equal('none');
		expect(of(9_000n, 1_000n, 'zero')).to.equal('minor');
	});
});

describe('a mistyped word', () => {
	const words = ['plaster', 'plasterboard', 'lime', 'limestone', 'render', 'scaffold'];
	for (const [typed, meant] of [
		['plsater', 'plaster'],
		['rendr', 'render'],
		['scafold', 'scaffold'],
		['limestoen', 'limestone'],
		['plastrebo', 'plasterboard']
	] as const)
		it(`${typed} may mean ${meant}`, () => expect(likelyWords(typed, words)).to.include(meant));
	it('means nothing where it is too short or too far', () => {
		expect(likelyWords('lmi', words)).to.deep.equal([]);
		expect(likelyWords('xxxxxx', words)).to.deep.equal([]);
	});
});
