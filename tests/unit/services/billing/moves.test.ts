// What billing asks to be done next, to the amount, the day and the address; and how far a bill run says it is.
import { expect } from 'chai';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { londonMoment } from '../../../../src/lib/core/calendar/conversion';
import { documents, retentions } from '../../../../src/lib/server/db/schema';
import { applyForPayment } from '../../../../src/lib/server/services/billing/applications';
import {
	billRun,
	continueRuns,
	listRuns,
	startBillRun
} from '../../../../src/lib/server/services/billing/billRun';
import {
	applicationMoves,
	retentionMoves,
	workMoves
} from '../../../../src/lib/server/services/billing/moves';
import { releaseRetention } from '../../../../src/lib/server/services/billing/retentions';
import { billStage } from '../../../../src/lib/server/services/billing/stages';
import { billJob, jobAsPattern } from '../../../../src/lib/server/services/billing/toBill';
import { addCustomer } from '../../../../src/lib/server/services/customers/customers';
import { discardDraft, loadDraft } from '../../../../src/lib/server/services/invoices/drafts';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { saveCost } from '../../../../src/lib/server/services/jobs/costs';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { expectSoundBooks } from '../../../support/books';
import { FIRM } from '../../../support/money';
import { CONTRACTOR, HOUSEHOLD, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
let keys = 0;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const job = (customerId: number, price: string, more: object = {}) =>
	addJob(world, `moves-${keys++}`, {
		title: `Gable ${price}`,
		customerId,
		pricesIncludeVat: false,
		lines: [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: price }],
		...more
	});
const finished = (customerId: number, price: string, on: string, more: object = {}) => {
	const id = job(customerId, price, more);
	moveJob(world, id, 'finished', on);
	return id;
};
const limeOn = (id: number) =>
	saveCost(world, id, 'c', null, {
		date: '2026-11-20',
		kind: 'materials',
		description: 'Lime',
		quantity: '1',
		unit: '',
		unitCost: '10',
		markUp: '',
		unitPrice: '',
		vat: 'standard',
		vatReason: '',
		chargeable: true
	});
const issue = (id: number) => issueInvoice(world, id, loadDraft(world.db, id).version);
const PART = { kind: 'valuation', by: 'toDate', percent: '50', amount: '', done: {} };

describe('next moves of billing', () => {
	it('ask for finished work: one job at its page, several together, with their sum', () => {
		const firm = addCustomer(world, FIRM);
		job(firm, '50');
		expect(workMoves(world)).to.deep.equal([]);
		const one = finished(firm, '100', '2026-11-20');
		expect(workMoves(world)).to.deep.equal([
			{
				id: `work:${firm}`,
				amount: 100_00n,
				brings: `work:${firm}`,
				late: false,
				title: 'Bill Corvane Dairy Ltd: Gable 100',
				detail: 'finished 20 Nov 2026',
				action: 'Bill it',
				href: `/work/${one}`
			}
		]);
		finished(firm, '30', '2026-11-21');
		expect(workMoves(world)).to.deep.equal([
			{
				id: `work:${firm}`,
				amount: 130_00n,
				brings: `work:${firm}`,
				late: false,
				title: 'Bill Corvane Dairy Ltd for 2 finished jobs',
				detail: 'finished 20 Nov 2026 and after',
				action: 'Bill them',
				href: `/work/bill?customer=${firm}`
			}
		]);
	});

	it('lead to the stages of what is billed in stages, and count nothing that is under way', async () => {
		const firm = addCustomer(world, FIRM);
		const id = job(firm, '1000');
		await issue(billStage(world, id, 's', { ...PART, kind: 'stage' }));
		moveJob(world, id, 'finished', '2026-11-20');
		const under = job(firm, '50');
		limeOn(under);
		expect(workMoves(world)).to.deep.equal([
			{
				id: `work:${firm}`,
				amount: 500_00n,
				brings: `work:${firm}`,
				late: false,
				title: 'Bill Corvane Dairy Ltd: Gable 1000',
				detail: 'finished 20 Nov 2026',
				action: 'Bill it',
				href: `/work/${id}/stage`
			}
		]);
	});

	it('ask for a retention from the day on which it is due, until it is released', async () => {
		const customerId = addCustomer(world, CONTRACTOR);
		const mill = job(customerId, '1000', { contract: 'construction', retention: '5' });
		await issue(billStage(world, mill, 'a', { ...PART, by: 'rest' }));
		world.db.update(retentions).set({ dueOn: '2026-11-25' }).run();
		expect(retentionMoves(world)).to.deep.equal([]);
		world.clock.set(londonMoment('2026-11-25T09:00'));
		expect(retentionMoves(world)).to.deep.equal([
			{
				id: `retention:${mill}`,
				amount: 50_00n,
				brings: `retention:${mill}`,
				late: false,
				title: 'Release the retention of Gable 1000',
				detail: 'held back until 25 Nov 2026',
				action: 'Release it',
				href: `/work/${mill}`
			}
		]);
		await issue(releaseRetention(world, mill, 'r'));
		expect(retentionMoves(world)).to.deep.equal([]);
	});

	it('ask after an application until it is answered', () => {
		const customerId = addCustomer(world, CONTRACTOR);
		const mill = job(customerId, '1000', { contract: 'construction' });
		const stage = applyForPayment(world, mill, 'a', PART);
		expect(applicationMoves(world)).to.deep.equal([
			{
				id: `application:${stage}`,
				amount: 500_00n,
				brings: `application:${stage}`,
				late: false,
				title: `Is ${world.db.$client.prepare('select application_number from stages').pluck().get()} approved or paid? Gable 1000`,
				detail: 'applied for on 24 Nov 2026; the VAT invoice follows',
				action: 'See',
				href: `/work/${mill}`
			}
		]);
	});
});

describe('a bill run', () => {
	for (const [action, state] of [
		['draft', 'drafted'],
		['issue', 'issued'],
		['send', 'sent']
	] as const)
		it(`that is to ${action} counts what is ${state} as done`, async () => {
			finished(addCustomer(world, HOUSEHOLD), '100', '2026-11-20');
			finished(
				addCustomer(world, { ...HOUSEHOLD, name: 'No address', email: '' }),
				'40',
				'2026-11-20'
			);
			const id = startBillRun(world, 'run', action, { split: 'job' });
			expect([billRun(world, id).done, listRuns(world)[0]]).to.deep.equal([
				0,
				{
					id,
					createdAt: world.clock.now(),
					action,
					state: 'running',
					steps: 2,
					done: 0,
					total: 168_00
				}
			]);
			await continueRuns(world);
			const run = billRun(world, id);
			expect(run.steps.map((step) => step.state)).to.deep.equal([
				state,
				action === 'send' ? 'issued' : state
			]);
			expect([run.done, run.state]).to.deep.equal([2, 'done']);
		});

	it('leaves out what is thrown away meanwhile, and counts what is issued by hand', async () => {
		for (const price of ['100', '200', '300'])
			finished(addCustomer(world, { ...HOUSEHOLD, name: `H ${price}` }), price, '2026-11-20');
		const id = startBillRun(world, 'run', 'draft', { split: 'job' });
		await continueRuns(world);
		const [first, second] = billRun(world, id).steps.map((step) => step.documentId!);
		// The same drafts, as a run that stopped before it issued them would find them.
		world.db.$client.exec("update bill_runs set action = 'issue', state = 'running'");
		await issue(first!);
		discardDraft(world, second!, true);
		await continueRuns(world);
		const { steps, done } = billRun(world, id);
		expect(steps.map(({ state, note }) => [state, note])).to.deep.equal([
			['issued', ''],
			['skipped', 'Its draft was thrown away.'],
			['issued', '']
		]);
		expect(done).to.equal(3);
	});
});

describe('a job that is billed', () => {
	it('says so in its trail, once', () => {
		const id = finished(addCustomer(world, HOUSEHOLD), '100', '2026-11-20');
		billJob(world, id, 'lines', 'k');
		billJob(world, id, 'lines', 'k');
		const trail = world.db.$client
			.prepare("select count(*) from job_trail where job_id = ? and what = 'invoiced'")
			.pluck();
		expect(trail.get(id)).to.equal(1);
	});

	it('is a pattern by what is agreed on it, not by what it cost', () => {
		const id = job(addCustomer(world, HOUSEHOLD), '100');
		limeOn(id);
		const pattern = jobAsPattern(world, id, 'p');
		const { sheet, origin } = world.db
			.select()
			.from(documents)
			.where(eq(documents.id, pattern))
			.get()!;
		expect(origin).to.equal('jobPattern');
		expect(
			sheet.rows.flatMap((row) => (row.type === 'line' ? [row.description] : []))
		).to.deep.equal(['Render']);
	});
});
