// What is held back: never more released than was held, nothing billed twice, each job its own, and taxed as it was.
import { expect } from 'chai';
import { eq, sql } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import { RefusedError } from '../../../../src/lib/core/refusals';
import { blankLine } from '../../../../src/lib/core/sheet/blank';
import { documents, retentions } from '../../../../src/lib/server/db/schema';
import { fullPlan, choiceForm } from '../../../../src/lib/server/services/billing/runPlan';
import {
	releaseRetention,
	retentionsOf
} from '../../../../src/lib/server/services/billing/retentions';
import { billStage } from '../../../../src/lib/server/services/billing/stages';
import { addCustomer, saveCustomer } from '../../../../src/lib/server/services/customers/customers';
import { jobPage } from '../../../../src/lib/server/services/desk/jobPage';
import { creditInvoice } from '../../../../src/lib/server/services/invoices/creditNote';
import {
	draftOnce,
	loadDraft,
	saveDraft
} from '../../../../src/lib/server/services/invoices/drafts';
import { frozenFigures } from '../../../../src/lib/core/documents/frozen';
import { NotReadyError } from '../../../../src/lib/server/services/invoices/freeze';
import { issueInvoice } from '../../../../src/lib/server/services/invoices/issue';
import { addJob } from '../../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../../src/lib/server/services/jobs/states';
import { marginsOf } from '../../../../src/lib/server/services/jobs/margins';
import { expectSoundBooks } from '../../../support/books';
import { CONTRACTOR, makeWorld, type TestWorld } from '../../../support/world';

let world: TestWorld;
let customerId: number;
beforeEach(() => {
	world = makeWorld();
	customerId = addCustomer(world, CONTRACTOR);
});
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

const REST = { kind: 'stage', by: 'rest', percent: '', amount: '', done: {} };
const jobOf = (title: string, price: string) =>
	addJob(world, title, {
		title,
		customerId,
		contract: 'construction',
		pricesIncludeVat: false,
		retention: '5',
		lines: [{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: price }]
	});
const issue = (id: number) => issueInvoice(world, id, loadDraft(world.db, id).version);
const rest = (job: number, key: string) => issue(billStage(world, job, key, REST));
const credit = (id: number) => creditInvoice(world, id, 'A mistake', `c${id}`);
const frozen = (id: number) =>
	world.db.select().from(documents).where(eq(documents.id, id)).get()!.frozen!;
const sales = (job: number) =>
	world.db.get<{ sum: number }>(
		sql`select coalesce(-sum(amount), 0) as sum from journal_lines where account = 'sales' and job_id = ${job}`
	)!.sum;

describe('a retention', () => {
	it('is not billed once more when its invoice is credited: the release is credited first', async () => {
		const job = jobOf('Mill', '10000');
		const first = await rest(job, 'a');
		const release = await issue(releaseRetention(world, job, 'r'));
		expect(sales(job)).to.equal(10_000_00);
		const refused = await credit(first.id).catch((problem: unknown) => problem);
		expect(refused).to.be.instanceOf(RefusedError);
		expect(String(refused)).to.include(release.number);
		await credit(release.id);
		await credit(first.id);
		expect(sales(job)).to.equal(0);
		await rest(job, 'b');
		await issue(releaseRetention(world, job, 's'));
		expect(sales(job)).to.equal(10_000_00);
		expect(jobPage(world, job).position!.left).to.equal(0n);
	});

	it('is released to the penny, whatever its draft was changed to', async () => {
		const job = jobOf('Mill', '10000');
		await rest(job, 'a');
		const draft = releaseRetention(world, job, 'r');
		const { sheet, version } = loadDraft(world.db, draft);
		for (const unitPrice of ['900', '499.99']) {
			const rows = sheet.rows.map((row) => (row.type === 'line' ? { ...row, unitPrice } : row));
			saveDraft(world, draft, loadDraft(world.db, draft).version, { ...sheet, rows });
			const problem = await issue(draft).catch((error: unknown) => error);
			expect(problem).to.be.instanceOf(NotReadyError);
			expect(String(problem)).to.match(/£500\.00 is held back/);
		}
		expect(version).to.equal(1);
		saveDraft(world, draft, loadDraft(world.db, draft).version, sheet);
		await issue(draft);
	});

	it('stays with each job where several are billed together', async () => {
		const jobs = [jobOf('One', '1000'), jobOf('Two', '3000')];
		for (const job of jobs) moveJob(world, job, 'finished', '2026-11-20');
		const [planned] = fullPlan(world, choiceForm.parse({ from: '', to: '' })).planned;
		const draft = world.db.transaction((tx) =>
			draftOnce(tx, world, 'run', () => ({ sheet: planned!.sheet, origin: 'run' }))
		);
		const invoice = await issue(draft);
		expect(jobs.map((job) => retentionsOf(world.db, job).map((one) => one.amount))).to.deep.equal([
			[50_00],
			[150_00]
		]);
		const release = await issue(releaseRetention(world, jobs[1]!, 'r'));
		expect(frozenFigures(frozen(release.id)).net).to.equal(150_00n);
		expect(jobs.map(sales)).to.deep.equal([950_00, 3000_00]);
		expect(
			world.db
				.select()
				.from(retentions)
				.all()
				.filter((one) => one.releasedById === null)
		).to.have.length(1);
		const refused = await credit(invoice.id).catch((problem: unknown) => problem);
		expect(refused).to.be.instanceOf(RefusedError);
	});

	it('is part of what a job has earned while it is held', async () => {
		const job = jobOf('Mill', '1000');
		moveJob(world, job, 'finished', '2026-11-20');
		const before = marginsOf(world, [job]).get(job)!.billed;
		await rest(job, 'a');
		const held = marginsOf(world, [job]).get(job)!;
		await issue(releaseRetention(world, job, 'r'));
		const released = marginsOf(world, [job]).get(job)!;
		expect([before, held.billed, released.billed]).to.deep.equal([0n, 1000_00n, 1000_00n]);
	});

	it('has the reason of each line’s rate, whatever headings and empty lines stood between', async () => {
		const reason = 'newDwelling';
		const job = addJob(world, 'reasons', {
			title: 'Mill',
			customerId,
			contract: 'construction',
			pricesIncludeVat: false,
			retention: '5',
			lines: [
				{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '1000' },
				{
					kind: 'labour',
					description: 'Insulation',
					quantity: '1',
					unitPrice: '1000',
					vat: 'zero',
					vatReason: reason
				}
			]
		});
		const draft = billStage(world, job, 'a', REST);
		const { sheet, version } = loadDraft(world.db, draft);
		const [heading, ...lines] = sheet.rows;
		saveDraft(world, draft, version, { ...sheet, rows: [heading!, blankLine('none'), ...lines] });
		await issue(draft);
		const released = loadDraft(world.db, releaseRetention(world, job, 'r')).sheet;
		expect(released.reference).to.equal('J-0001: Mill');
		expect(
			released.rows.map((row) => (row.type === 'line' ? [row.id, row.vat, row.vatReason] : row.id))
		).to.deep.equal([
			['r1', 'standard', ''],
			['r2', 'zero', reason]
		]);
	});

	it('takes along its part of the cost, by a percentage with decimals too', async () => {
		const job = addJob(world, 'decimals', {
			title: 'Mill',
			customerId,
			contract: 'construction',
			pricesIncludeVat: false,
			retention: '2.5',
			lines: [
				{ kind: 'labour', description: 'Render', quantity: '1', unitPrice: '1600' },
				{ kind: 'materials', description: 'Lime', quantity: '1', unitPrice: '400', cost: '300' }
			]
		});
		await rest(job, 'a');
		const { sheet } = loadDraft(world.db, releaseRetention(world, job, 'r'));
		const [, line] = sheet.rows.flatMap((row) => (row.type === 'line' ? [row] : []));
		// 2.5 % of 400.00, and of the 300.00 it cost; its VAT has no reason of its own.
		expect(line).to.include({ unitPrice: '10.00', cost: '7.50', vatReason: '' });
	});

	it('is taxed as the invoice that held it back, also after an end user’s statement', async () => {
		const job = jobOf('Mill', '1000');
		const first = await rest(job, 'a');
		expect(frozenFigures(frozen(first.id)).decisions.reverseCharge.answer).to.equal(true);
		saveCustomer(world, customerId, 1, {
			...CONTRACTOR,
			standing: {
				...CONTRACTOR.standing,
				endUser: true,
				endUserStatement: 'We use it',
				endUserDate: '2026-11-24'
			}
		});
		const release = await issue(releaseRetention(world, job, 'r'));
		const figures = frozenFigures(frozen(release.id));
		expect(figures.decisions.reverseCharge.answer).to.equal(true);
		expect([figures.vatCharged, figures.vatReverseCharged]).to.deep.equal([0n, 10_00n]);
	});

	it('has the day of its invoice as tax point, however long after the work', async () => {
		const job = jobOf('Mill', '1000');
		moveJob(world, job, 'finished', '2026-01-20');
		const first = await rest(job, 'a');
		const release = await issue(releaseRetention(world, job, 'r'));
		for (const { id } of [first, release]) expect(frozen(id).taxPoint).to.equal('2026-11-24');
	});
});
