// A bill run: chosen, looked through, then worked off step by step. Each step is keyed, so that a crash, a second tab
// or a second run cannot bill anything twice.
import { must } from '../../actor';
import { and, asc, eq, sql } from 'drizzle-orm';
import { writeAtOnce, type Reader } from '../../db/connection';
import { billRuns, billRunSteps, documents } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { ConflictError, NotFoundError, RefusedError } from '../../../core/refusals';
import { issueInvoices } from '../invoices/issue';
import { runDrafts } from './runDrafts';
import { choiceForm, fullPlan } from './runPlan';
import { queueIssued } from '../invoices/send';
import { turn } from '../../turn';

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
	must('bill');
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
		// By hand, prepared once: a run may have thousands of steps.
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

async function workOffRun(world: World, run: typeof billRuns.$inferSelect): Promise<void> {
	while (runDrafts(world, run.id) > 0) await turn();
	if (run.action === 'draft') return;
	while (await issueSteps(world, run));
}

/** Issues the next steps that are drafted. False when none is left. */
async function issueSteps(world: World, run: typeof billRuns.$inferSelect): Promise<boolean> {
	const setStep = (
		db: Reader,
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
				const key = `run:${run.id}:${issuedId}`;
				const sent = queueIssued(tx, world, issuedId, { key, who: 'you' });
				setStep(
					tx,
					position,
					sent ? { state: 'sent' } : { note: 'There is no e-mail address to send it to.' }
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
