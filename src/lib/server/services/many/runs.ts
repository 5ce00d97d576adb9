// One action on many rows: the rows are written down as they were chosen, checked, worked off step by step, gone on with after a
// crash, and stopped where somebody wants to.
import { must } from '../../actor';
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { readTypedDate } from '../../../core/calendar/conversion';
import { isPlainDate } from '../../../core/calendar/queries';
import type { PlainDate } from '../../../core/calendar/types';
import {
	ACTIONS,
	type Asked,
	type ManyAction,
	type ManyActionId,
	type ManyOptions
} from '../../../core/lists/actions';
import { WAY_NAMES } from '../../../core/words';
import type { ListName } from '../../../core/lists/types';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { writeAtOnce, type Reader } from '../../db/connection';
import { manyRows, manyRuns } from '../../db/schema';
import { turn } from '../../turn';
import type { World } from '../../world';
import { ACTS, type Doing } from './acts';

/** More than this is chosen by its filters, not row by row. */
const ONE_BY_ONE = 10_000;
const CHUNK = 100;

/** The rows a view has now, by their numbers. */
export type RowsOf = (world: World, view: URLSearchParams) => number[];

/**
 * Writes down which rows were chosen: these, or all that a view has now. The same key again gives the same run.
 * @throws RefusedError where nothing is chosen
 */
export function chooseRows(
	world: World,
	key: string,
	list: ListName,
	chosen: { ids: readonly number[] } | { view: string; rows: RowsOf }
): number {
	must('bill');
	return writeAtOnce(world.db, (tx) => {
		const same = tx.select({ id: manyRuns.id }).from(manyRuns).where(eq(manyRuns.key, key)).get();
		if (same) return same.id;
		const ids =
			'ids' in chosen
				? [...new Set(chosen.ids)].slice(0, ONE_BY_ONE)
				: chosen.rows(world, new URLSearchParams(chosen.view));
		if (ids.length === 0) throw new RefusedError('Choose at least one row.');
		const { id } = tx
			.insert(manyRuns)
			.values({
				key,
				list,
				view: 'view' in chosen ? chosen.view : null,
				state: 'chosen',
				createdAt: world.clock.now()
			})
			.returning({ id: manyRuns.id })
			.get();
		// By hand, prepared once: there may be a hundred thousand.
		const insert = world.db.$client.prepare(
			"insert into many_rows (run_id, row_id, state) values (?, ?, 'waiting')"
		);
		for (const rowId of ids) insert.run(id, rowId);
		return id;
	});
}

export function load(db: Reader, id: number) {
	const run = db.select().from(manyRuns).where(eq(manyRuns.id, id)).get();
	if (!run) throw new NotFoundError('This choice');
	return run;
}

export const actionOf = (list: ListName, id: string | null): ManyAction | null =>
	ACTIONS[list].find((one) => one.id === id) ?? null;

const doing = ({ id, list, options }: typeof manyRuns.$inferSelect): Doing => ({
	key: `many:${id}`,
	list,
	options
});

/** What an action asks for, read from what was typed; nothing else is kept. @throws FieldError */
function readOptions({ asks = [] }: ManyAction, given: ManyOptions, today: PlainDate): ManyOptions {
	const problems: Record<string, string> = {};
	const read = asks.map((asked): [Asked, string] => {
		const typed = (given[asked] ?? '').trim();
		if (asked === 'day') {
			const day = isPlainDate(typed) ? typed : readTypedDate(typed, today);
			if (day === null) problems.day = 'Which day? Such as 24 Nov.';
			return [asked, day ?? ''];
		}
		if (asked === 'way') {
			if (!Object.hasOwn(WAY_NAMES, typed)) problems.way = 'How was it paid?';
			return [asked, typed];
		}
		if (typed === '') problems.label = 'Which label?';
		else if (typed.length > 40) problems.label = 'At most 40 characters.';
		else if (typed.includes(',')) problems.label = 'One at a time, without a comma.';
		return [asked, typed];
	});
	if (Object.keys(problems).length) throw new FieldError(problems);
	return Object.fromEntries(read);
}

export interface Checked {
	chosen: number;
	fits: number;
	/** Why rows are left out, the most first, with some of them. */
	leftOut: { why: string; count: number; ids: number[] }[];
	/** Rows that the view has now and had not when it was looked at: they are not included. */
	joined: number[];
}

export const EXAMPLES = 8;

/** Which of the chosen rows an action fits now. Nothing is written; in pieces, so that nobody waits. */
export async function checkRows(
	world: World,
	id: number,
	action: ManyActionId,
	rowsOf: RowsOf
): Promise<Checked> {
	const run = load(world.db, id);
	const why = new Map<string, { count: number; ids: number[] }>();
	let chosen = 0;
	let out = 0;
	for (let after = -1; ;) {
		const ids = world.db
			.select({ id: manyRows.rowId })
			.from(manyRows)
			.where(and(eq(manyRows.runId, id), sql`${manyRows.rowId} > ${after}`))
			.orderBy(asc(manyRows.rowId))
			.limit(CHUNK)
			.all()
			.map((row) => row.id);
		if (ids.length === 0) break;
		after = ids.at(-1)!;
		chosen += ids.length;
		for (const [rowId, words] of ACTS[action].leftOut(world, world.db, ids, doing(run))) {
			const one = why.get(words) ?? { count: 0, ids: [] };
			one.count += 1;
			if (one.ids.length < EXAMPLES) one.ids.push(rowId);
			why.set(words, one);
			out += 1;
		}
		await turn();
	}
	return {
		chosen,
		fits: chosen - out,
		leftOut: [...why]
			.map(([words, one]) => ({ why: words, ...one }))
			.sort((a, b) => b.count - a.count),
		joined:
			run.view === null ? [] : joinedSince(world, id, rowsOf(world, new URLSearchParams(run.view)))
	};
}

function joinedSince(world: World, id: number, now: readonly number[]): number[] {
	const known = new Set(
		world.db
			.select({ id: manyRows.rowId })
			.from(manyRows)
			.where(eq(manyRows.runId, id))
			.all()
			.map((row) => row.id)
	);
	return now.filter((rowId) => !known.has(rowId));
}

/**
 * Begins what was chosen. A second press, from another tab too, changes nothing.
 * @throws NotFoundError, RefusedError; FieldError where what the action asks for is missing
 */
export function beginRun(
	world: World,
	id: number,
	action: ManyActionId,
	options: ManyOptions = {}
): void {
	must('bill');
	writeAtOnce(world.db, (tx) => {
		const run = load(tx, id);
		if (!actionOf(run.list, action)) throw new RefusedError('That cannot be done with these.');
		if (run.state !== 'chosen') {
			if (run.action === action) return;
			throw new RefusedError('Something else was begun with these rows already.');
		}
		const asked = readOptions(actionOf(run.list, action)!, options, world.clock.today());
		tx.update(manyRuns)
			.set({ action, options: asked, state: 'running' })
			.where(eq(manyRuns.id, id))
			.run();
	});
}

/** Goes no further; what is done stays done. */
export function stopRun(world: World, id: number): void {
	must('bill');
	world.db
		.update(manyRuns)
		.set({ state: 'stopped', endedAt: world.clock.now() })
		.where(and(eq(manyRuns.id, id), eq(manyRuns.state, 'running')))
		.run();
}

/** Goes on where it was stopped. */
export function resumeRun(world: World, id: number): void {
	must('bill');
	world.db
		.update(manyRuns)
		.set({ state: 'running', endedAt: null })
		.where(and(eq(manyRuns.id, id), eq(manyRuns.state, 'stopped')))
		.run();
}

let working: Promise<void> | null = null;

/** Works off what was begun. Safe to call again, and from anywhere. */
export function continueMany(world: World): Promise<void> {
	working ??= workOff(world).finally(() => (working = null));
	return working;
}

async function workOff(world: World): Promise<void> {
	for (;;) {
		const run = world.db
			.select()
			.from(manyRuns)
			.where(eq(manyRuns.state, 'running'))
			.orderBy(asc(manyRuns.id))
			.get();
		if (!run) return;
		if (!step(world, run.id))
			world.db
				.update(manyRuns)
				.set({ state: 'done', endedAt: world.clock.now() })
				.where(and(eq(manyRuns.id, run.id), eq(manyRuns.state, 'running')))
				.run();
		await turn();
	}
}

/** The next rows, each marked in the transaction that deals with it. False when none is left. */
function step(world: World, id: number): boolean {
	return writeAtOnce(world.db, (tx) => {
		const run = load(tx, id);
		if (run.state !== 'running' || !run.action) return true;
		const act = ACTS[run.action];
		const waiting = tx
			.select({ id: manyRows.rowId })
			.from(manyRows)
			.where(and(eq(manyRows.runId, id), eq(manyRows.state, 'waiting')))
			.orderBy(asc(manyRows.rowId))
			.limit(CHUNK)
			.all()
			.map((row) => row.id);
		if (waiting.length === 0) return false;
		const together = act.next?.(tx, id) ?? [];
		const ids = together.length ? together : waiting;
		const left = act.leftOut(world, tx, ids, doing(run));
		const refused = act.work(
			world,
			tx,
			ids.filter((one) => !left.has(one)),
			doing(run)
		);
		for (const [rowId, why] of [...left, ...(refused ?? [])]) mark(tx, id, [rowId], 'leftOut', why);
		mark(
			tx,
			id,
			ids.filter((one) => !left.has(one) && !refused?.has(one)),
			'done',
			''
		);
		return true;
	});
}

function mark(
	tx: Reader,
	runId: number,
	ids: readonly number[],
	state: 'done' | 'leftOut',
	why: string
): void {
	for (let at = 0; at < ids.length; at += 500)
		tx.update(manyRows)
			.set({ state, why })
			.where(and(eq(manyRows.runId, runId), inArray(manyRows.rowId, ids.slice(at, at + 500))))
			.run();
}
