// A bill run: chosen, looked through, then worked off step by step. Each step is keyed, so that a crash, a second tab
// or a second run cannot bill anything twice.
import { and, asc, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { displayDate } from '../../../core/calendar/conversion';
import { addDays } from '../../../core/calendar/manipulation';
import type { PlainDate } from '../../../core/calendar/types';
import { customerOn, sellerOn } from '../../../core/parties';
import { documentMessage } from '../../../core/documents/wording';
import { JOB_STATES } from '../../../core/jobs/types';
import {
	planRun,
	RUN_SHAPES,
	RUN_SPLITS,
	type LeftOut,
	type PlannedInvoice,
	type RunInvoice,
	type RunJob,
	type RunPlan
} from '../../../core/jobs/run';
import { GB } from '../../../core/regimes/gb';
import { decideTaxPoint } from '../../../core/regimes/gb/taxPoint';
import { readSheet } from '../../../core/sheet/read';
import type { Problem } from '../../../core/sheet/types';
import { writeAtOnce } from '../../db/connection';
import { billRuns, billRunSteps, documents } from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness, sellerRecord } from '../business/settings';
import { parseForm } from '../business/fields';
import { customerRecord, mailAddresses } from '../customers/parts';
import { sheetContext } from '../invoices/drafts';
import { ConflictError, NotFoundError, RefusedError } from '../../../core/refusals';
import { day } from '../business/fields';
import { frozenFigures } from '../invoices/freeze';
import { issueInvoices } from '../invoices/issue';
import { queueMail } from '../messages/outbox';
import { runDrafts } from './runDrafts';
import { jobLabel, toBill, type ToBillJob } from './toBill';
import { note } from '../trail/documents';

const id = z.number().int().positive();
export const choiceForm = z.object({
	customerId: id.optional(),
	billToId: id.optional(),
	siteId: id.optional(),
	label: z.string().max(40).optional(),
	from: day,
	to: day,
	/** Work still under way is billed only where its state is named: its time and its costs. */
	states: z.array(z.enum(JOB_STATES)).optional(),
	/** Only these, out of what matches; absent: all of it. */
	jobIds: z.array(id).max(100_000).optional(),
	/** Leave out what was finished more than 14 days ago. */
	within14: z.boolean().default(false),
	split: z.enum(RUN_SPLITS).default('customer'),
	shape: z.enum(RUN_SHAPES).default('job')
});
export type Choice = z.input<typeof choiceForm>;
type ReadChoice = z.output<typeof choiceForm>;

interface FullPlan extends RunPlan {
	planned: RunInvoice[];
	/** How often each job had been changed: a step whose job changed since is skipped. */
	worked: Map<number, number>;
}

/** What a run over this choice would make, with everything it leaves out and why. */
export function planBillRun(world: World, input: unknown): RunPlan {
	const {
		planned: _planned,
		worked: _worked,
		...plan
	} = fullPlan(world, parseForm(choiceForm, input));
	return plan;
}

function fullPlan(world: World, choice: ReadChoice): FullPlan {
	const today = world.clock.today();
	const oldBefore = addDays(today, -14);
	const found = toBill(world, {
		...choice,
		from: choice.from || undefined,
		to: choice.to || undefined
	});
	const leftOut: LeftOut[] = [];
	const leave = (job: ToBillJob, because: string) =>
		leftOut.push({
			jobId: job.id,
			number: job.number,
			title: job.title,
			customer: job.customer,
			because
		});
	const wanted = found.filter((job) => {
		if (job.finishedOn === null && !choice.states?.includes(job.state))
			leave(job, 'It is not finished yet: bill its time and costs on the job.');
		else if (job.staged) leave(job, 'It is billed in stages: bill the next one on the job.');
		else if (choice.within14 && job.finishedOn !== null && job.finishedOn < oldBefore)
			leave(job, 'Finished more than 14 days ago, and left for later.');
		else if (job.customerKind === 'contractor' && job.contract === null)
			leave(job, 'Say on the job whether its contract contains construction work.');
		else return true;
		return false;
	});
	const standing = standingReader(world, today);
	const planned = planRun(
		wanted.map((job) => asRunJob(job, standing(job))),
		choice,
		(what = '') => periodLabel(wanted, what)
	);
	const byId = new Map(wanted.map((job) => [job.id, job]));
	const readContext = contextReader(world);
	const addressed = addressReader(world);
	const invoices: PlannedInvoice[] = [];
	const kept: RunInvoice[] = [];
	for (const one of planned) {
		const jobs = one.jobIds.map((jobId) => byId.get(jobId)!);
		const context = readContext(one);
		const reading = readSheet(one.sheet, context);
		const stops = reading.problems.filter((problem) => problem.level === 'stop');
		if (stops.length || !reading.figures) {
			for (const job of jobs) leave(job, stops[0]?.message ?? 'It comes to nothing.');
			continue;
		}
		kept.push(one);
		invoices.push({
			customerId: one.customerId,
			customer: jobs[0]!.customer,
			jobs: jobs.map(({ id: jobId, number, title }) => ({ id: jobId, number, title })),
			total: Number(reading.figures.total),
			payable: Number(reading.figures.payable),
			splitBecause: one.splitBecause,
			warnings: warningsOf(reading.problems, jobs, oldBefore),
			noAddress: !addressed(one)
		});
	}
	return {
		invoices,
		planned: kept,
		worked: new Map(wanted.map((job) => [job.id, job.worked])),
		leftOut,
		old: wanted.filter((job) => job.finishedOn !== null && job.finishedOn < oldBefore).length,
		jobs: kept.reduce((sum, one) => sum + one.jobIds.length, 0),
		total: invoices.reduce((sum, one) => sum + one.total, 0)
	};
}

/** Parties are looked up once for each customer and bill-to, however many invoices they get. */
function contextReader(world: World) {
	const known = new Map<string, ReturnType<typeof sheetContext>>();
	return ({ sheet }: RunInvoice) => {
		const key = `${sheet.customerId} ${sheet.billToId ?? ''} ${sheet.siteId ?? ''}`;
		let context = known.get(key);
		if (!context) {
			context = sheetContext(world.db, sheet, world.clock.today());
			known.set(key, context);
		}
		return context;
	};
}

/** Whether there is an address to send to, asked once for each customer and bill-to. */
function addressReader(world: World) {
	const known = new Map<string, boolean>();
	return ({ customerId, sheet }: RunInvoice): boolean => {
		const key = `${customerId} ${sheet.billToId ?? ''} ${sheet.siteId ?? ''}`;
		const found = known.get(key) ?? mailAddresses(world.db, customerId, sheet).length > 0;
		known.set(key, found);
		return found;
	};
}

function warningsOf(problems: Problem[], jobs: ToBillJob[], oldBefore: PlainDate): string[] {
	const old = jobs.filter((job) => job.finishedOn !== null && job.finishedOn < oldBefore);
	const messages = problems
		.filter((problem) => problem.level === 'warning')
		.map((problem) => problem.message);
	return [
		...(old.length
			? [
					`${old.map((job) => job.number).join(', ')} finished more than 14 days ago: the VAT on that belongs to the period it was finished in.`
				]
			: []),
		...new Set(messages)
	];
}

/** What must be the same for jobs to share an invoice: both parties' standing and the rates on the job's tax point. */
function standingReader(world: World, today: PlainDate) {
	const seller = sellerRecord(world.db);
	const known = new Map<number, ReturnType<typeof customerRecord>>();
	return (job: ToBillJob): string => {
		if (!known.has(job.customerId))
			known.set(job.customerId, customerRecord(world.db, job.customerId));
		const record = known.get(job.customerId)!;
		const date = decideTaxPoint(job.finishedOn ?? today, today).date;
		const { vatRegistered, vatNumber } = sellerOn(seller, date);
		const rates = [...new Set(job.billables.map((one) => one.vat))].map(
			(vat) => `${vat}${GB.rateOn(vat, date)?.rate.units ?? ''}`
		);
		// Only a rate that differs keeps apart; a job that merely uses another one does not.
		const changed = rates.filter(
			(_, index) =>
				GB.rateOn(job.billables[index]?.vat ?? 'standard', date)?.rate.units !==
				GB.rateOn(job.billables[index]?.vat ?? 'standard', today)?.rate.units
		);
		return JSON.stringify([customerOn(record!, date).standing, vatRegistered, vatNumber, changed]);
	};
}

function asRunJob(job: ToBillJob, standing: string): RunJob {
	return {
		id: job.id,
		customerId: job.customerId,
		customerKind: job.customerKind,
		billToId: job.billToId,
		siteId: job.siteId,
		contract: job.customerKind === 'contractor' ? job.contract : null,
		pricesIncludeVat: job.pricesIncludeVat,
		retention: job.retention,
		retentionDue: job.retentionDue ?? '',
		finishedOn: job.finishedOn,
		standing,
		billables: job.billables,
		number: job.number,
		label: (what) => jobLabel(job, what)
	};
}

function periodLabel(jobs: readonly ToBillJob[], what: string): string {
	const days = jobs.flatMap((job) => job.finishedOn ?? []).sort();
	const span =
		days.length === 0
			? ''
			: days[0] === days.at(-1)
				? `, ${displayDate(days[0]!)}`
				: `, ${displayDate(days[0]!)} to ${displayDate(days.at(-1)!)}`;
	return `Work done${what ? `, ${what}` : ''}${span}`;
}

/**
 * Starts a run: its steps are written down at once, and worked off by `continueRuns`. The same key again gives the
 * same run back.
 * @throws RefusedError where there is nothing to bill
 */
export function startBillRun(
	world: World,
	key: string,
	action: 'draft' | 'issue' | 'send',
	input: unknown
): number {
	const same = world.db
		.select({ id: billRuns.id })
		.from(billRuns)
		.where(eq(billRuns.key, key))
		.get();
	if (same) return same.id;
	const choice = parseForm(choiceForm, input);
	const { planned, invoices, worked } = fullPlan(world, choice);
	if (planned.length === 0) throw new RefusedError('There is nothing to bill in this choice.');
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const again = tx.select({ id: billRuns.id }).from(billRuns).where(eq(billRuns.key, key)).get();
		if (again) return again.id;
		const runId = tx
			.insert(billRuns)
			.values({ key, action, state: 'running', choice, createdAt: now })
			.returning({ id: billRuns.id })
			.get().id;
		const insert = world.db.$client.prepare(
			`insert into bill_run_steps (run_id, position, customer_id, customer_name, job_ids, worked, total, sheet, state)
			 values (?, ?, ?, ?, ?, ?, ?, ?, 'waiting')`
		);
		for (const [position, one] of planned.entries())
			insert.run(
				runId,
				position,
				one.customerId,
				invoices[position]!.customer,
				JSON.stringify(one.jobIds),
				JSON.stringify(one.jobIds.map((jobId) => worked.get(jobId))),
				invoices[position]!.total,
				JSON.stringify(one.sheet)
			);
		return runId;
	});
}

let working: Promise<void> | null = null;

/** Works off every run that is not done, one at a time in this process. Safe to call again and again. */
export function continueRuns(world: World): Promise<void> {
	working ??= workOff(world).finally(() => (working = null));
	return working;
}

async function workOff(world: World): Promise<void> {
	for (;;) {
		const run = world.db
			.select()
			.from(billRuns)
			.where(eq(billRuns.state, 'running'))
			.orderBy(asc(billRuns.id))
			.get();
		if (!run) return;
		await workOffRun(world, run);
		world.db
			.update(billRuns)
			.set({ state: 'done', endedAt: world.clock.now() })
			.where(eq(billRuns.id, run.id))
			.run();
	}
}

/** Invoices issued side by side: their PDFs are drawn on other threads meanwhile. */
const ISSUED_AT_ONCE = 16;

type Writer = Parameters<Parameters<typeof writeAtOnce>[1]>[0] | World['db'];

async function workOffRun(world: World, run: typeof billRuns.$inferSelect): Promise<void> {
	while (runDrafts(world, run.id) > 0) await new Promise((resolve) => setImmediate(resolve));
	if (run.action === 'draft') return;
	while (await issueSteps(world, run));
}

/** Issues the next steps that are drafted. False when none is left. */
async function issueSteps(world: World, run: typeof billRuns.$inferSelect): Promise<boolean> {
	const setStep = (
		db: Writer,
		position: number,
		values: Partial<typeof billRunSteps.$inferInsert>
	) =>
		db
			.update(billRunSteps)
			.set(values)
			.where(and(eq(billRunSteps.runId, run.id), eq(billRunSteps.position, position)))
			.run();
	const steps = world.db
		.select({
			position: billRunSteps.position,
			id: billRunSteps.documentId,
			version: documents.version,
			state: documents.state
		})
		.from(billRunSteps)
		.leftJoin(documents, eq(documents.id, billRunSteps.documentId))
		.where(and(eq(billRunSteps.runId, run.id), eq(billRunSteps.state, 'drafted')))
		.orderBy(asc(billRunSteps.position))
		.limit(ISSUED_AT_ONCE)
		.all();
	const ready = steps.filter(({ position, id: documentId, state }) => {
		if (documentId !== null && state === 'draft') return true;
		if (state === 'issued') setStep(world.db, position, { state: 'issued' });
		else setStep(world.db, position, { state: 'skipped', note: 'Its draft was thrown away.' });
		return false;
	});
	const results = await issueInvoices(
		world,
		ready.map(({ position, id: documentId, version }) => ({
			id: documentId!,
			version: version!,
			// The step is marked in the transaction that issues, so that no crash can come between the two.
			after: (tx, issuedId) => {
				setStep(tx, position, { state: 'issued' });
				if (run.action !== 'send') return;
				const sent = sendInRun(tx, world, run.id, issuedId);
				setStep(
					tx,
					position,
					sent ? { state: 'sent' } : { note: 'There is no mail address to send it to.' }
				);
			}
		}))
	);
	for (const [index, result] of results.entries()) {
		const { position } = ready[index]!;
		if (result instanceof RefusedError || result instanceof ConflictError)
			setStep(world.db, position, {
				state: 'skipped',
				note: `Left as a draft: ${result.message}`
			});
		else if (result instanceof Error) throw result;
	}
	return steps.length > 0;
}

function sendInRun(
	tx: Parameters<Parameters<typeof writeAtOnce>[1]>[0],
	world: World,
	runId: number,
	documentId: number
): boolean {
	const row = tx.select().from(documents).where(eq(documents.id, documentId)).get()!;
	const to = mailAddresses(tx, row.customerId!, row.frozen!.sheet)[0];
	if (!to) return false;
	const owner = loadBusiness(tx);
	const message = documentMessage(row.frozen!, row.number!, frozenFigures(row.frozen!).payable);
	const fresh = queueMail(tx, world, {
		key: `run:${runId}:${documentId}`,
		kind: 'invoice',
		documentId,
		to,
		bcc: owner.copyToSelf ? owner.email : '',
		subject: message.subject,
		text: message.text,
		link: `${world.origin}/p/${row.token}`,
		attachPdf: true
	});
	if (fresh) note(tx, { documentId, at: world.clock.now(), who: 'you', what: 'sent', detail: to });
	return true;
}

export function listRuns(world: World) {
	return world.db.all<{
		id: number;
		createdAt: number;
		action: 'draft' | 'issue' | 'send';
		state: 'running' | 'done';
		steps: number;
		done: number;
		total: number;
	}>(sql`
		select r.id, r.created_at as createdAt, r.action, r.state, count(*) as steps,
			sum(s.state <> 'waiting') as done, sum(case when s.state = 'skipped' then 0 else s.total end) as total
		from bill_runs r join bill_run_steps s on s.run_id = r.id group by r.id order by r.id desc limit 50`);
}

/** @throws NotFoundError */
export function billRun(world: World, runId: number) {
	const run = world.db.select().from(billRuns).where(eq(billRuns.id, runId)).get();
	if (!run) throw new NotFoundError('This run');
	const steps = world.db
		.select({
			position: billRunSteps.position,
			customer: billRunSteps.customerName,
			jobIds: billRunSteps.jobIds,
			total: billRunSteps.total,
			state: billRunSteps.state,
			note: billRunSteps.note,
			documentId: billRunSteps.documentId,
			number: documents.number
		})
		.from(billRunSteps)
		.leftJoin(documents, eq(documents.id, billRunSteps.documentId))
		.where(eq(billRunSteps.runId, runId))
		.orderBy(asc(billRunSteps.position))
		.all();
	const goal = { draft: 'drafted', issue: 'issued', send: 'sent' }[run.action];
	const ended = (state: string) =>
		state === goal || state === 'skipped' || (goal === 'sent' && state === 'issued');
	return { ...run, steps, done: steps.filter((step) => ended(step.state)).length };
}
