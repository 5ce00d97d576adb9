// What waits to be billed, and what a bill run would make of it: what is left out and why, and what is warned of.
// Over 300 lines: one case for each reason why something is left out, kept apart or warned of.
import { expect } from 'chai';
import { desc, eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { RefusedError } from '../../../../src/lib/core/refusals';
import { documents, vatStatuses } from '../../../../src/lib/server/db/schema';
import { continueRuns, startBillRun } from '../../../../src/lib/server/services/billing/billRun';
import { planBillRun } from '../../../../src/lib/server/services/billing/runPlan';
import { billStage } from '../../../../src/lib/server/services/billing/stages';
import {
	billJob,
	jobLabel,
	toBill,
	unbilledOf
} from '../../../../src/lib/server/services/billing/toBill';
import {
	addCustomer,
	customerDetail
} from '../../../../src/lib/server/services/customers/customers';
import { loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { saveCost } from '../../../../src/lib/server/services/jobs/costs';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { saveTime } from '../../../../src/lib/server/services/jobs/time';
import { expectSoundBooks } from '../../../support/books';
import { FIRM } from '../../../support/money';
import { CONTRACTOR, HOUSEHOLD, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

let keys = 0;
const job = (customerId: number, more: object = {}) =>
	addJob(world, `j${keys++}`, {
		title: 'Gable',
		customerId,
		pricesIncludeVat: false,
		lines: [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '100' }],
		...more
	});
const finished = (customerId: number, on = '2026-11-20', more: object = {}) => {
	const id = job(customerId, more);
	moveJob(world, id, 'finished', on);
	return id;
};
const time = (id: number, date = '2026-11-18') =>
	saveTime(world, id, `t${keys++}`, null, {
		date,
		person: '',
		hours: '2',
		rate: '40',
		hourlyCost: '',
		chargeable: true,
		note: ''
	});
const ids = (filter: object = {}) => toBill(world, filter).map((one) => one.id);

describe('what waits to be billed', () => {
	it('is what is finished, the oldest first; time and costs of what is under way come last', () => {
		const firm = addCustomer(world, FIRM);
		const late = finished(firm, '2026-11-20');
		const early = finished(firm, '2026-11-03');
		const under = job(firm);
		expect(ids()).to.deep.equal([early, late]);
		time(under);
		saveCost(world, under, 'c', null, {
			date: '2026-11-17',
			kind: 'materials',
			description: 'Lime',
			quantity: '1',
			unit: '',
			unitCost: '10',
			markUp: '50',
			unitPrice: '',
			chargeable: true
		});
		expect(ids()).to.deep.equal([early, late, under]);
		const [first, , last] = toBill(world);
		expect(first).to.include({ since: '2026-11-03', days: 21, amount: 100_00, staged: false });
		// Two hours at 40.00 and 15.00; the agreed price is not due before it is finished. It waits since its first day.
		expect(last).to.include({ since: '2026-11-17', days: 7, amount: 95_00, finishedOn: null });
	});

	it('leaves out what is only asked for, dropped, billed or taken by a draft', () => {
		const firm = addCustomer(world, FIRM);
		addJob(world, 'e', { title: 'Perhaps', customerId: firm, lines: [] }, 'enquiry');
		const dropped = finished(firm);
		moveJob(world, dropped, 'dropped');
		const taken = finished(firm);
		billJob(world, taken, 'lines', 'b');
		expect(ids()).to.deep.equal([]);
		time(taken);
		expect(toBill(world).map((one) => [one.id, one.amount])).to.deep.equal([[taken, 80_00]]);
	});

	it('of a contract in stages is what is left of it', () => {
		const contractor = addCustomer(world, CONTRACTOR);
		const staged = finished(contractor, '2026-11-20', { contract: 'construction' });
		billStage(world, staged, 's', {
			kind: 'deposit',
			by: 'percent',
			percent: '30',
			amount: '',
			done: {}
		});
		expect(toBill(world)[0]).to.include({ id: staged, staged: true, amount: 70_00 });
		// Time on it comes on top of what is left of its contract.
		time(staged);
		expect(toBill(world)[0]).to.include({ id: staged, amount: 150_00 });
	});

	it('is found by customer, who pays, site, label, days, state and number', () => {
		const agent = addCustomer(world, { ...FIRM, name: 'Agent' });
		const firm = addCustomer(world, {
			...FIRM,
			sites: [
				{ name: 'Mill', address: '', accessNotes: '' },
				{ name: 'Flat', address: '', accessNotes: '', billToId: agent }
			]
		});
		const { sites } = customerDetail(world, firm);
		const mill = finished(firm, '2026-11-03', { siteId: sites[0]!.id, labels: ['lime'] });
		const flat = finished(firm, '2026-11-20', { siteId: sites[1]!.id });
		const own = finished(addCustomer(world, HOUSEHOLD), '2026-11-20', { billToId: agent });
		expect(ids({ customerId: firm })).to.deep.equal([mill, flat]);
		// Of the job, else of its site, else of the customer.
		expect(ids({ billToId: agent })).to.deep.equal([flat, own]);
		expect(ids({ siteId: sites[0]!.id })).to.deep.equal([mill]);
		expect(ids({ label: 'lime' })).to.deep.equal([mill]);
		expect(ids({ label: 'lim' })).to.deep.equal([]);
		expect(ids({ from: '2026-11-03', to: '2026-11-03' })).to.deep.equal([mill]);
		expect(ids({ from: '2026-11-04' })).to.deep.equal([flat, own]);
		expect(ids({ states: ['booked'] })).to.deep.equal([]);
		expect(ids({ jobIds: [own, 999] })).to.deep.equal([own]);
	});

	it('is called by its number, title, site and day', () => {
		expect(
			jobLabel({ number: 'J-1', title: 'Gable', site: 'Mill', finishedOn: '2026-11-03' })
		).to.equal('J-1: Gable · Mill · finished 3 Nov 2026');
		expect(
			jobLabel({ number: 'J-1', title: 'Gable', site: '', finishedOn: null }, 'materials')
		).to.equal('J-1: Gable, materials');
	});
});

describe('the plan of a bill run', () => {
	it('says what it would come to, for whom, and what is older than 14 days', () => {
		const firm = addCustomer(world, FIRM);
		const old = finished(firm, '2026-11-09');
		const edge = finished(firm, '2026-11-10');
		const plan = planBillRun(world, { from: '', to: '' });
		expect(plan).to.include({ jobs: 2, old: 1, total: 240_00n });
		expect(plan.invoices).to.have.length(1);
		expect(plan.invoices[0]!.jobs.map((one) => one.id)).to.deep.equal([old, edge]);
		expect(plan.invoices[0]).to.deep.include({
			customer: FIRM.name,
			total: 240_00n,
			payable: 240_00n,
			noAddress: false
		});
		expect(plan.invoices[0]!.warnings[0]).to.match(/^J-\S+ finished more than 14 days ago/);
		expect(plan.leftOut).to.deep.equal([]);
		const young = planBillRun(world, { from: '', to: '', within14: true });
		expect(young.leftOut.map((one) => [one.jobId, one.because])).to.deep.equal([
			[old, 'Finished more than 14 days ago, and left for later.']
		]);
		expect(young).to.include({ jobs: 1, old: 0, total: 120_00n });
		expect(young.invoices[0]!.warnings).to.deep.equal([]);
	});

	it('of nothing is no run', () => {
		expect(() => startBillRun(world, 'none', 'draft', { from: '', to: '' })).to.throw(
			RefusedError,
			'There is nothing to bill in this choice.'
		);
		const firm = addCustomer(world, FIRM);
		finished(firm, '2026-11-20');
		for (const days of [
			{ from: '2026-11-21', to: '' },
			{ from: '', to: '2026-11-19' }
		])
			expect(planBillRun(world, days), JSON.stringify(days)).to.include({ jobs: 0, total: 0n });
		for (const days of [
			{ from: '2026-11-20', to: '' },
			{ from: '', to: '2026-11-20' }
		])
			expect(planBillRun(world, days), JSON.stringify(days)).to.include({ jobs: 1 });
	});

	it('holds back what a contractor’s job does, and names no class for anybody else', async () => {
		const contract = finished(addCustomer(world, CONTRACTOR), '2026-11-20', {
			contract: 'construction',
			retention: '5',
			retentionDue: '2027-05-01'
		});
		const firm = finished(addCustomer(world, FIRM), '2026-11-20');
		startBillRun(world, 'run', 'draft', { from: '', to: '' });
		await continueRuns(world);
		const sheets = world.db
			.select()
			.from(documents)
			.orderBy(documents.id)
			.all()
			.map(({ sheet }) => sheet);
		const of = (job: number) =>
			sheets.find(({ rows }) => rows.some((row) => row.type === 'line' && row.jobId === job))!;
		expect(of(contract)).to.include({
			contract: 'construction',
			retention: '5',
			retentionDue: '2027-05-01',
			siteId: null
		});
		expect(of(firm)).to.include({ contract: null, retention: '', retentionDue: '', siteId: null });
	});

	it('leaves out what is unfinished, in stages, or of no class yet, each with its reason', () => {
		const contractor = addCustomer(world, CONTRACTOR);
		const unclear = finished(contractor);
		const staged = finished(contractor, '2026-11-20', { contract: 'construction' });
		billStage(world, staged, 's', {
			kind: 'deposit',
			by: 'percent',
			percent: '30',
			amount: '',
			done: {}
		});
		const under = job(contractor, { contract: 'construction' });
		time(under);
		const because = new Map(
			planBillRun(world, { from: '', to: '' }).leftOut.map((one) => [one.jobId, one.because])
		);
		expect(because.get(unclear)).to.match(/whether its contract contains construction work/);
		expect(because.get(staged)).to.match(/billed in stages/);
		expect(because.get(under)).to.match(/not finished yet/);
		expect(because.size).to.equal(3);
		const asked = planBillRun(world, { from: '', to: '', states: ['booked'] });
		expect(asked.leftOut).to.deep.equal([]);
		expect(asked).to.include({ jobs: 1, total: 80_00n });
	});

	it('leaves out what could not be issued, in the law’s words', () => {
		const firm = addCustomer(world, { ...FIRM, address: '' });
		const large = finished(firm, '2026-11-20', {
			lines: [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '300' }]
		});
		const plan = planBillRun(world, { from: '', to: '' });
		expect(plan.leftOut.map((one) => [one.jobId, one.because])).to.deep.equal([
			[large, 'A VAT invoice above £250 shows the customer’s address.']
		]);
		expect(plan).to.include({ jobs: 0, total: 0n });
	});

	it('says what it warns of in words, and whose address is asked: the customer’s, the bill-to’s', () => {
		const agent = addCustomer(world, { ...FIRM, name: 'Agent', email: 'desk@agent.example' });
		const firm = addCustomer(world, { ...FIRM, email: '' });
		finished(firm, '2026-11-20', { billToId: agent });
		finished(firm);
		const unknown = { ...CONTRACTOR, standing: { ...CONTRACTOR.standing, cisRate: null } };
		finished(addCustomer(world, unknown), '2026-11-20', { contract: 'construction' });
		const { invoices } = planBillRun(world, { from: '', to: '' });
		expect(invoices.map((one) => [one.customer === FIRM.name, one.noAddress])).to.have.deep.members(
			[
				[true, false],
				[true, true],
				[false, false]
			]
		);
		const warnings = invoices.flatMap((one) => one.warnings);
		expect(warnings).to.have.length.above(0);
		expect(warnings.every((one) => typeof one === 'string' && one.length > 10)).to.equal(true);
	});

	it('keeps apart what was finished at another rate: work of the day before it rose', () => {
		const firm = addCustomer(world, FIRM);
		const before = finished(firm, '2011-01-03');
		const since = finished(firm, '2011-01-04');
		const plan = planBillRun(world, { from: '', to: '' });
		expect(plan.invoices.map((one) => one.jobs.map((each) => each.id))).to.deep.equal([
			[before],
			[since]
		]);
	});

	it('knows who has no address for mail', () => {
		finished(addCustomer(world, { ...FIRM, email: '' }));
		expect(planBillRun(world, { from: '', to: '' }).invoices[0]!.noAddress).to.equal(true);
	});

	it('keeps apart what the seller’s standing changed between, and says so', () => {
		const firm = addCustomer(world, FIRM);
		const before = finished(firm, '2026-10-20');
		const since = finished(firm, '2026-11-20');
		world.db.update(vatStatuses).set({ registered: false, number: '' }).run();
		world.db
			.insert(vatStatuses)
			.values({ from: '2026-11-01', registered: true, number: '444444454' })
			.run();
		const plan = planBillRun(world, { from: '', to: '' });
		expect(plan.invoices.map((one) => [one.jobs.map((each) => each.id), one.total])).to.deep.equal([
			[[before], 100_00n],
			[[since], 120_00n]
		]);
		expect(plan.invoices[0]!.splitBecause).to.deep.equal([
			'the tax standing or a rate changed in between'
		]);
	});

	it('calls the period by its first and last day, or by the one there is', async () => {
		const heading = async (key: string) => {
			startBillRun(world, key, 'draft', { from: '', to: '', shape: 'period' });
			await continueRuns(world);
			const last = world.db.select().from(documents).orderBy(desc(documents.id)).get()!;
			return last.sheet.rows.flatMap((row) => (row.type === 'heading' ? [row.text] : []));
		};
		const firm = addCustomer(world, FIRM);
		finished(firm, '2026-11-12');
		expect(await heading('one')).to.deep.equal(['Work done, 12 Nov 2026']);
		finished(firm, '2026-11-13');
		finished(firm, '2026-11-20');
		expect(await heading('two')).to.deep.equal(['Work done, 13 Nov 2026 to 20 Nov 2026']);
	});
});

describe('what of a customer’s jobs waits to be put on an invoice', () => {
	it('is each job with its lines, as it holds back, the one that is finished with its day', () => {
		const firm = addCustomer(world, FIRM);
		const [done, under] = [
			finished(firm, '2026-11-20', { retention: '5', retentionDue: '2027-05-01' }),
			job(firm)
		];
		time(under);
		job(firm);
		finished(addCustomer(world, HOUSEHOLD));
		const found = unbilledOf(world, firm);
		expect(
			found.map(({ id, amount, finishedOn, sheet }) => [id, amount, finishedOn, sheet.workFinished])
		).to.deep.equal([
			[done, 100_00, '2026-11-20', '2026-11-20'],
			[under, 80_00, null, '']
		]);
		expect(found[0]!.sheet).to.include({
			retention: '5',
			retentionDue: '2027-05-01',
			reference: found[0]!.number
		});
		expect(found[1]!.sheet).to.include({ retention: '', retentionDue: '' });
		expect(found.map(({ sheet }) => sheet.rows.map((row) => row.id))).to.deep.equal([
			[`j${done}-1`],
			[`j${under}-1`]
		]);
		expect(unbilledOf(world, firm + 99)).to.deep.equal([]);
	});
	it('of a contract in stages holds back by its stages alone', () => {
		const firm = addCustomer(world, FIRM);
		const id = job(firm, { retention: '5' });
		billStage(world, id, 's', { kind: 'stage', by: 'percent', percent: '40', amount: '' });
		moveJob(world, id, 'finished', '2026-11-20');
		for (const one of unbilledOf(world, firm)) expect(one.sheet.retention).to.equal('');
	});
});

describe('a job billed', () => {
	it('takes each part once: a second draft has nothing left', () => {
		const id = finished(addCustomer(world, FIRM));
		const draft = billJob(world, id, 'lines', 'a');
		expect(billJob(world, id, 'lines', 'a')).to.equal(draft);
		expect(() => billJob(world, id, 'lines', 'b')).to.throw();
		const { sheet } = loadDraft(world.db, draft);
		expect(sheet.workFinished).to.equal('2026-11-20');
		const heading = (of: number) =>
			loadDraft(world.db, billJob(world, of, 'single', `h${of}`)).sheet.rows.map((row) =>
				row.type === 'line' ? row.description : row.type === 'heading' ? row.text : ''
			);
		const firm = addCustomer(world, {
			...FIRM,
			sites: [{ name: 'Mill', address: '', accessNotes: '' }]
		});
		const [site] = customerDetail(world, firm).sites;
		expect(heading(finished(firm, '2026-11-20', { siteId: site!.id })).join()).to.include('Mill');
		expect(world.db.select().from(documents).where(eq(documents.id, draft)).get()!.origin).to.equal(
			'job'
		);
	});
});
