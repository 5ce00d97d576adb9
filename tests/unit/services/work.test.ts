// Work from the job to its invoices. Over 300 lines: jobs, time, stages and runs are made by the same few steps.
import { expect } from 'chai';
import sharp from 'sharp';
import { eq } from 'drizzle-orm';
import { afterEach, beforeEach, describe, it } from 'mocha';
import {
	billedParts,
	documents,
	jobs,
	journalLines,
	retentions
} from '../../../src/lib/server/db/schema';
import { expectSoundBooks } from '../../support/books';
import {
	billRun,
	continueRuns,
	startBillRun
} from '../../../src/lib/server/services/billing/billRun';
import { planBillRun } from '../../../src/lib/server/services/billing/runPlan';
import { creditInvoice } from '../../../src/lib/server/services/invoices/creditNote';
import { addCustomer } from '../../../src/lib/server/services/customers/customers';
import {
	copyAsDraft,
	discardDraft,
	loadDraft,
	saveDraft
} from '../../../src/lib/server/services/invoices/drafts';
import { FieldError, RefusedError } from '../../../src/lib/core/refusals';
import { NotReadyError } from '../../../src/lib/server/services/invoices/freeze';
import { issueInvoice } from '../../../src/lib/server/services/invoices/issue';
import { addFile, filesOf, loadFile } from '../../../src/lib/server/services/files/files';
import {
	readHours,
	runningClock,
	saveTime,
	startClock,
	stopClock
} from '../../../src/lib/server/services/jobs/time';
import { saveCost } from '../../../src/lib/server/services/jobs/costs';
import { jobPage } from '../../../src/lib/server/services/desk/jobPage';
import { addJob, loadJob, saveJob } from '../../../src/lib/server/services/jobs/jobs';
import { moveJob } from '../../../src/lib/server/services/jobs/states';
import { billStage } from '../../../src/lib/server/services/billing/stages';
import {
	applyForPayment,
	approveApplication
} from '../../../src/lib/server/services/billing/applications';
import { releaseRetention } from '../../../src/lib/server/services/billing/retentions';
import { billJob, toBill } from '../../../src/lib/server/services/billing/toBill';
import { CONTRACTOR, HOUSEHOLD, makeWorld, type TestWorld } from '../../support/world';

let world: TestWorld;
beforeEach(() => (world = makeWorld()));
afterEach(() => {
	expectSoundBooks(world.db);
	world.end();
});

let keys = 0;
const key = () => `k${keys++}`;
const LINES = [
	{ kind: 'labour', description: 'Render', quantity: '10', unit: 'hour', unitPrice: '40' },
	{ kind: 'materials', description: 'Lime', quantity: '1', unitPrice: '100', cost: '80' }
];

function job(customerId: number, more: object = {}): number {
	return addJob(world, key(), {
		title: 'North gable',
		customerId,
		contract: 'construction',
		pricesIncludeVat: false,
		lines: LINES,
		...more
	});
}
function finished(customerId: number, on = '2026-11-20', more: object = {}): number {
	const id = job(customerId, more);
	moveJob(world, id, 'finished', on);
	return id;
}
const issue = (id: number) => issueInvoice(world, id, loadDraft(world.db, id).version);

describe('a job', () => {
	it('asks for a title and a customer, at their fields, and keeps its number', () => {
		expect(() => addJob(world, key(), { title: ' ', customerId: null }))
			.to.throw(FieldError)
			.with.nested.property('fields.title');
		const customerId = addCustomer(world, CONTRACTOR);
		const once = key();
		const id = addJob(world, once, { title: 'A', customerId });
		expect(addJob(world, once, { title: 'A', customerId })).to.equal(id);
		expect(loadJob(world.db, id).number).to.equal('J-0001');
	});

	it('is billed once: all of it, its time and its costs; then nothing is left', async () => {
		const id = finished(addCustomer(world, CONTRACTOR), '2026-11-20', {
			fixedPrice: false,
			hourlyRate: '36'
		});
		saveTime(world, id, key(), null, {
			date: '2026-11-19',
			hours: '2:30',
			rate: '36',
			chargeable: true
		});
		saveCost(world, id, key(), null, {
			date: '2026-11-19',
			description: 'Mesh',
			quantity: '2',
			unitCost: '10',
			markUp: '20',
			chargeable: true
		});
		expect(toBill(world)[0]).to.include({ amount: 500_00 + 90_00 + 24_00, days: 4 });
		const draft = billJob(world, id, 'lines', 'same press');
		expect(billJob(world, id, 'lines', 'same press')).to.equal(draft);
		expect(() => billJob(world, id, 'lines', key())).to.throw(
			RefusedError,
			/on an invoice already/
		);
		expect(toBill(world)).to.deep.equal([]);
		await issue(draft);
		expect(loadJob(world.db, id).state).to.equal('billed');
		const sales = world.db.select().from(journalLines).where(eq(journalLines.jobId, id)).all();
		expect(sales.map((line) => line.amount)).to.deep.equal([-614_00]);
	});

	it('can be billed again when its draft is thrown away, a line is taken out, or its invoice is credited in full', async () => {
		const id = finished(addCustomer(world, CONTRACTOR));
		const draft = billJob(world, id, 'lines', key());
		const { sheet, version } = loadDraft(world.db, draft);
		saveDraft(world, draft, version, { ...sheet, rows: sheet.rows.slice(1) });
		expect(toBill(world)[0]!.billables.map((one) => one.description)).to.deep.equal(['Render']);
		saveDraft(world, draft, version + 1, sheet);
		expect(toBill(world)).to.have.length(0);
		discardDraft(world, draft, true);
		expect(toBill(world)[0]!.billables).to.have.length(2);
		discardDraft(world, draft, false);
		await issue(draft);
		expect(loadJob(world.db, id).state).to.equal('billed');
		await creditInvoice(world, draft, 'Wrong customer', key());
		expect(loadJob(world.db, id).state).to.equal('finished');
		expect(toBill(world)[0]!.amount).to.equal(500_00);
		expect(jobPage(world, id).margin.billed).to.equal(0n);
	});

	it('a line two drafts bill is issued with one of them only', async () => {
		const id = finished(addCustomer(world, CONTRACTOR));
		const first = billJob(world, id, 'lines', key());
		const { sheet } = loadDraft(world.db, first);
		const copy = copyAsDraft(world, first, key());
		expect(loadDraft(world.db, copy).sheet.rows.some((row) => 'bills' in row)).to.equal(false);
		// A second tab keeps what it had, claims and all: it may save them, and not issue them.
		saveDraft(world, copy, loadDraft(world.db, copy).version, sheet);
		const error = await issue(copy).catch((caught: Error) => caught);
		expect(error)
			.to.be.instanceOf(NotReadyError)
			.with.property('message')
			.that.matches(/Another draft bills this/);
		await issue(first);
	});

	it('keeps what is billed: its price, its time, its customer, its class', async () => {
		const customerId = addCustomer(world, CONTRACTOR);
		const id = finished(customerId);
		const time = saveTime(world, id, key(), null, {
			date: '2026-11-19',
			hours: '1',
			rate: '36',
			chargeable: true
		});
		await issue(billJob(world, id, 'lines', key()));
		const { job: row, work } = jobPage(world, id);
		const change = (more: object) => () =>
			saveJob(world, id, loadJob(world.db, id).version, {
				...row,
				retentionDue: '',
				lines: work.lines,
				...more
			});
		expect(change({ lines: work.lines.slice(1) })).to.throw(FieldError, /billed already/);
		expect(change({ lines: [{ ...work.lines[0], unitPrice: '41' }, work.lines[1]] })).to.throw(
			FieldError,
			/billed already/
		);
		expect(change({ contract: 'none' })).to.throw(FieldError, /cannot flip/);
		expect(change({ customerId: addCustomer(world, HOUSEHOLD) })).to.throw(
			FieldError,
			/customer stays/
		);
		expect(() =>
			saveTime(world, id, '', time, {
				date: '2026-11-19',
				hours: '2',
				rate: '36',
				chargeable: true
			})
		).to.throw(RefusedError);
		change({ title: 'Another title' })();
	});
});

describe('time on a job', () => {
	it('runs on through anything, stops once, and one clock runs at a time', () => {
		const customerId = addCustomer(world, HOUSEHOLD);
		const [a, b] = [job(customerId), job(customerId)];
		const press = key();
		startClock(world, press, a);
		startClock(world, press, a);
		world.clock.set(world.clock.now() + 50 * 60_000);
		startClock(world, key(), b);
		expect(jobPage(world, a).work.time.map((one) => one.minutes)).to.deep.equal([50]);
		expect(() => moveJob(world, b, 'finished')).to.throw(RefusedError, /clock is still running/);
		world.clock.set(world.clock.now() - 5 * 60_000);
		expect(stopClock(world)).to.equal(b);
		expect(stopClock(world)).to.equal(null);
		expect(jobPage(world, b).work.time.map((one) => one.minutes)).to.deep.equal([0]);
		expect(runningClock(world)).to.equal(null);
	});

	it('of a clock stopped within half a minute is none, but what was noted or ran longer stays', () => {
		const id = job(addCustomer(world, HOUSEHOLD));
		const ran = (seconds: number) => {
			startClock(world, key(), id);
			world.clock.set(world.clock.now() + seconds * 1000);
			expect(stopClock(world)).to.equal(id);
			return jobPage(world, id).work.time.length;
		};
		expect([ran(29), ran(30)]).to.deep.equal([0, 1]);
	});
	for (const [typed, minutes] of [
		['7.5', 450],
		['7:30', 450],
		['7h 30', 450],
		['0:05', 5],
		['7:61', null],
		['x', null]
	] as const)
		it(`reads ${typed}`, () => expect(readHours(typed)).to.equal(minutes));
});

describe('photos and files', () => {
	it('are made smaller, and once', async () => {
		const id = job(addCustomer(world, HOUSEHOLD));
		const photo = await sharp({
			create: { width: 3000, height: 1500, channels: 3, background: '#c84' }
		})
			.png()
			.toBuffer();
		await addFile(world, { to: 'job', id: id }, 'wall.png', photo);
		await addFile(world, { to: 'job', id: id }, 'again.png', photo);
		const [file, ...more] = filesOf(world.db, { to: 'job', id: id });
		expect(more).to.deep.equal([]);
		const stored = await sharp(
			loadFile(world, file!.id, false, { to: 'job', id: id }).content
		).metadata();
		expect([stored.width, stored.height, stored.format]).to.deep.equal([2000, 1000, 'jpeg']);
	});
	it('a photo that is none is refused, whatever its name says', async () => {
		const id = job(addCustomer(world, HOUSEHOLD));
		const fake = Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 0]), Buffer.alloc(200, 7)]);
		const error = await addFile(world, { to: 'job', id: id }, 'photo.jpg', fake).catch(
			(caught: Error) => caught
		);
		expect(error)
			.to.be.instanceOf(FieldError)
			.with.nested.property('fields.file')
			.that.matches(/neither a photo/);
		const huge = await addFile(
			world,
			{ to: 'job', id: id },
			'film.jpg',
			Buffer.alloc(26 * 1024 * 1024)
		).catch((caught: Error) => caught);
		expect(huge)
			.to.be.instanceOf(FieldError)
			.with.nested.property('fields.file')
			.that.matches(/At most 25 MB/);
	});
});

describe('stage invoices', () => {
	const big = (more: object = {}) =>
		job(addCustomer(world, CONTRACTOR), {
			retention: '5',
			retentionDue: '2027-11-24',
			lines: [
				{ kind: 'labour', description: 'Plaster', quantity: '1', unitPrice: '7000.33' },
				{
					kind: 'materials',
					description: 'Lime',
					quantity: '1',
					unitPrice: '5345.34',
					cost: '4000.01'
				}
			],
			...more
		});

	it('10 % deposit, 45 % to date, the rest, with retention, CIS and reverse charge, add up to the penny', async () => {
		const id = big();
		const bill = async (input: object) => {
			const issued = await issue(billStage(world, id, key(), input));
			return world.db.select().from(documents).where(eq(documents.id, issued.id)).get()!;
		};
		const bills = [
			await bill({ kind: 'deposit', by: 'percent', percent: '10' }),
			await bill({ kind: 'valuation', by: 'toDate', percent: '45' }),
			await bill({ kind: 'rest', by: 'rest' })
		];
		const held = world.db.select().from(retentions).all();
		expect(held.map((one) => one.amount)).to.deep.equal([61_73, 216_05, 339_51]);
		moveJob(world, id, 'finished');
		expect(loadJob(world.db, id).state).to.equal('billed');
		const release = await issue(releaseRetention(world, id, key()));
		bills.push(world.db.select().from(documents).where(eq(documents.id, release.id)).get()!);
		expect(bills.reduce((sum, one) => sum + one.net, 0)).to.equal(12_345_67);
		expect(bills.map((one) => one.vatCharged)).to.deep.equal([0, 0, 0, 0]);
		// 20 % of all but what was paid to others, through every stage and the release.
		expect(bills.reduce((sum, one) => sum + one.deduction!, 0)).to.be.closeTo(
			(12_345_67 - 4000_01) * 0.2,
			3
		);
		const { margin, position } = jobPage(world, id);
		expect([margin.billed, position.left]).to.deep.equal([12_345_67n, 0n]);
		const again = () => releaseRetention(world, id, key());
		expect(again).to.throw(RefusedError, /Nothing is held back/);
	});

	it('a changed amount, a thrown-away draft and a whole bill are held to the contract', async () => {
		const id = big();
		const draft = billStage(world, id, 'press', { kind: 'stage', by: 'amount', amount: '1,000' });
		expect(
			billStage(world, id, 'press', { kind: 'stage', by: 'amount', amount: '1,000' })
		).to.equal(draft);
		const { sheet, version } = loadDraft(world.db, draft);
		const rows = sheet.rows.map((row) =>
			row.type === 'line' ? { ...row, unitPrice: '9999' } : row
		);
		saveDraft(world, draft, version, { ...sheet, rows });
		expect(await issue(draft).catch((caught: Error) => caught)).to.be.instanceOf(NotReadyError);
		discardDraft(world, draft, true);
		expect(jobPage(world, id).position.billed).to.equal(0n);
		billStage(world, id, key(), { kind: 'rest', by: 'rest' });
		discardDraft(world, draft, false);
		const error = await issue(draft).catch((caught: Error) => caught);
		expect(error)
			.to.have.property('message')
			.that.matches(/does not stand any more/);
	});

	it('a change of the sum midway shows in the open, and cannot go below what is billed', async () => {
		const id = big();
		await issue(billStage(world, id, key(), { kind: 'stage', by: 'percent', percent: '50' }));
		const { job: row, work } = jobPage(world, id);
		const save = (unitPrice: string) =>
			saveJob(world, id, loadJob(world.db, id).version, {
				...row,
				lines: [
					{ ...work.lines[0], unitPrice },
					work.lines[1],
					{ description: 'Extra coat', quantity: '1', unitPrice: '250', extra: true }
				]
			});
		expect(() => save('3000')).to.throw(FieldError, /cannot go below/);
		save('8000');
		const page = jobPage(world, id);
		expect(page.position).to.deep.include({ contractSum: 13_345_34n, extras: 250_00n });
		expect(page.trail[0]!.detail).to.equal('£12,345.67 → £13,595.34');
	});

	it('an application asks first, takes its part, and becomes the invoice over what was approved', async () => {
		const id = big();
		const stage = applyForPayment(world, id, key(), {
			kind: 'stage',
			by: 'percent',
			percent: '40'
		});
		expect(jobPage(world, id).position.billed).to.equal(4938_27n);
		expect(() => approveApplication(world, stage, { amount: '5000' })).to.throw(
			FieldError,
			/what was applied for/
		);
		const draft = approveApplication(world, stage, { amount: '4500', paidOn: '2026-11-23' });
		expect(approveApplication(world, stage, {})).to.equal(draft);
		await issue(draft);
		const row = world.db.select().from(documents).where(eq(documents.id, draft)).get()!;
		expect(jobPage(world, id).position.billed).to.equal(4500_00n);
		expect(row.net).to.equal(4275_00);
	});
});

describe('a bill run', () => {
	const many = (n: number) => {
		const customerId = addCustomer(world, CONTRACTOR);
		return Array.from({ length: n }, (_, i) =>
			finished(customerId, i % 2 ? '2026-11-20' : '2026-10-20', { title: `Flat ${i}` })
		);
	};

	it('shows what it will make, what is old, and what it leaves out and why', () => {
		many(4);
		finished(addCustomer(world, { ...CONTRACTOR, name: 'Undecided' }), '2026-11-20', {
			contract: null
		});
		const plan = planBillRun(world, { split: 'customer' });
		expect([plan.invoices.length, plan.jobs, plan.total, plan.old]).to.deep.equal([
			1,
			4,
			2000_00n,
			2
		]);
		expect(plan.invoices[0]!.warnings.join()).to.match(
			/J-0001, J-0003 finished more than 14 days ago/
		);
		expect(plan.leftOut.map((one) => one.because).join()).to.match(/construction work/);
		expect(planBillRun(world, { within14: true }).jobs).to.equal(2);
	});

	it('bills the time and costs of work under way only where that is asked for, on invoices of their own', () => {
		const customerId = addCustomer(world, CONTRACTOR);
		finished(customerId);
		const open = job(customerId, { title: 'Long one', fixedPrice: false, lines: [] });
		moveJob(world, open, 'underWay');
		saveTime(world, open, key(), null, {
			date: '2026-11-20',
			hours: '2',
			rate: '45',
			chargeable: true
		});
		const usual = planBillRun(world, {});
		expect(usual.leftOut.map((one) => one.jobId)).to.deep.equal([open]);
		const both = planBillRun(world, { states: ['booked', 'underWay', 'finished'] });
		expect(both.leftOut).to.deep.equal([]);
		expect(both.invoices.map((one) => one.splitBecause)).to.deep.equal([
			['some of the work is still under way'],
			['some of the work is still under way']
		]);
	});

	it('issues and sends, each job once, whatever runs at once', async () => {
		many(6);
		const [a, b] = [
			startBillRun(world, 'a', 'send', { split: 'job' }),
			startBillRun(world, 'b', 'send', { split: 'job' })
		];
		expect(startBillRun(world, 'a', 'send', {})).to.equal(a);
		await Promise.all([continueRuns(world), continueRuns(world)]);
		expect(billRun(world, a).steps.map((step) => step.state)).to.deep.equal(Array(6).fill('sent'));
		expect(billRun(world, b).steps.map((step) => step.note)).to.deep.equal(
			Array(6).fill('Another invoice bills one of its jobs by now.')
		);
		expect(world.db.select().from(billedParts).all()).to.have.length(12);
		const lines = world.db.select().from(documents).where(eq(documents.state, 'issued')).all();
		expect(lines.map((row) => row.taxPoint).sort()).to.deep.equal([
			...Array(3).fill('2026-10-20'),
			...Array(3).fill('2026-11-24')
		]);
	});

	it('leaves out a job that was changed or dropped meanwhile, and keeps what cannot be sent', async () => {
		const customerId = addCustomer(world, { ...CONTRACTOR, email: '' });
		const [kept, changed, reopened] = [
			finished(customerId),
			finished(customerId),
			finished(customerId)
		];
		const run = startBillRun(world, key(), 'send', { split: 'job' });
		saveTime(world, changed, key(), null, {
			date: '2026-11-19',
			hours: '1',
			rate: '36',
			chargeable: true
		});
		moveJob(world, reopened, 'underWay');
		await continueRuns(world);
		expect(billRun(world, run).steps.map((step) => [step.state, step.note])).to.deep.equal([
			['issued', 'There is no e-mail address to send it to.'],
			['skipped', 'One of its jobs was changed or removed after the run was started.'],
			['skipped', 'One of its jobs was changed or removed after the run was started.']
		]);
		expect(world.db.select().from(jobs).where(eq(jobs.id, kept)).get()!.state).to.equal('billed');
	});

	it('a bill-to that points in a circle is refused; the site’s own comes before the customer’s', () => {
		const agent = addCustomer(world, {
			name: 'Agent',
			kind: 'business',
			email: 'agent@post.example'
		});
		const owner = addCustomer(world, {
			...HOUSEHOLD,
			sites: [{ name: 'Flat 3', address: 'x', billToId: agent }]
		});
		expect(() =>
			addCustomer(world, { name: 'Loop', sites: [{ name: 's', billToId: 999 }] })
		).to.throw(FieldError);
		const siteId = jobPage(world, job(owner)).sites[0]!.id;
		finished(owner, '2026-11-20', { siteId, contract: null });
		const plan = planBillRun(world, { billToId: agent });
		expect(plan.invoices[0]).to.include({ customer: 'Odile Brancaster', noAddress: false });
	});
});
