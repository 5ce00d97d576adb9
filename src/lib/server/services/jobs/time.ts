// What was done on a job: visits, time with a clock that survives everything, costs.
import { and, eq, isNull, or } from 'drizzle-orm';
import { z } from 'zod';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { actor } from '../../actor';
import { jobs, timeEntries } from '../../db/schema';
import { OWNER } from '../business/sessions';
import { toBin } from '../business/bin';
import type { World } from '../../world';
import { parseForm, day, text, typedNumber } from '../business/fields';
import { mustGoTo } from './reach';
import { isBilled, workChanged } from './takenParts';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { loadJob } from './jobs';
import { move } from './visits';

/**
 * Starts the clock on a job. The same key again changes nothing; a clock that runs elsewhere is stopped and its
 * time kept there, because one person works at one place.
 */
export function startClock(
	world: World,
	key: string,
	jobId: number,
	visitId: number | null = null
): number {
	mustGoTo(world.db, jobId);
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const same = tx
			.select({ id: timeEntries.id })
			.from(timeEntries)
			.where(eq(timeEntries.key, key))
			.get();
		if (same) return same.id;
		const job = loadJob(tx, jobId);
		if (job.state === 'finished' || job.state === 'billed')
			throw new RefusedError('This job is finished. Reopen it first.');
		stopRunning(tx, now);
		if (job.state !== 'underWay') move(tx, world, jobId, 'underWay');
		return tx
			.insert(timeEntries)
			.values({
				key,
				jobId,
				visitId,
				personId: actor()?.id ?? null,
				person: helperName(),
				date: world.clock.today(),
				startedAt: now,
				minutes: null,
				rate: job.hourlyRate,
				hourlyCost: job.hourlyCost,
				chargeable: !job.fixedPrice
			})
			.returning({ id: timeEntries.id })
			.get().id;
	});
}

/** Stops whatever clock runs; a clock that does not run any more changes nothing. Returns the job it ran on. */
export function stopClock(world: World): number | null {
	return writeAtOnce(world.db, (tx) => stopRunning(tx, world.clock.now()));
}

const MINUTE = 60_000;
/** Nobody works longer without a pause: a clock that was forgotten is stopped at this, and says so. */
const LONGEST_MINUTES = 16 * 60;

/** The clock of whoever asks: each has one. What ran before there were people is the owner's. */
const runsHere = () => {
	const id = actor()?.id ?? OWNER;
	return and(
		isNull(timeEntries.minutes),
		id === OWNER
			? or(isNull(timeEntries.personId), eq(timeEntries.personId, OWNER))
			: eq(timeEntries.personId, id)
	);
};

/** The owner's own time bears no name. */
const helperName = (): string => {
	const who = actor();
	return who && who.id !== OWNER ? who.name : '';
};

function stopRunning(tx: Transaction, now: number): number | null {
	const running = tx.select().from(timeEntries).where(runsHere()).get();
	if (!running) return null;
	// Started by mistake, and stopped at once: nothing was worked.
	const passed = now - running.startedAt!;
	if (passed >= 0 && passed < MINUTE / 2 && running.note.trim() === '') {
		tx.delete(timeEntries).where(eq(timeEntries.id, running.id)).run();
		workChanged(tx, running.jobId, now);
		return running.jobId;
	}
	// A device's clock may jump back: then nothing was worked rather than less than nothing.
	const minutes = Math.max(0, Math.round((now - running.startedAt!) / MINUTE));
	tx.update(timeEntries)
		.set({
			minutes: Math.min(minutes, LONGEST_MINUTES),
			...(minutes > LONGEST_MINUTES
				? { note: `${running.note} (the clock ran on; look at this time)`.trim() }
				: {})
		})
		.where(eq(timeEntries.id, running.id))
		.run();
	workChanged(tx, running.jobId, now);
	return running.jobId;
}

export function runningClock(world: World) {
	return (
		world.db
			.select({
				id: timeEntries.id,
				jobId: timeEntries.jobId,
				startedAt: timeEntries.startedAt,
				title: jobs.title
			})
			.from(timeEntries)
			.innerJoin(jobs, eq(jobs.id, timeEntries.jobId))
			.where(runsHere())
			.get() ?? null
	);
}

const timeForm = z.object({
	date: day.refine((value) => value !== '', 'Which day?'),
	person: text(100),
	hours: text(10),
	rate: typedNumber('a rate', { decimals: 4 }),
	hourlyCost: typedNumber('what an hour costs', { decimals: 4 }),
	chargeable: z.boolean(),
	note: text(2000)
});

/** Minutes out of `7.5`, `7:30` or `7h 30`. Null where it is none of these. */
export function readHours(typed: string): number | null {
	const clock = /^(\d{1,2})\s*(?::|h)\s*(\d{0,2})\s*(?:m|min)?$/i.exec(typed.trim());
	if (clock) {
		const minutes = Number(clock[2] || 0);
		return minutes < 60 ? Number(clock[1]) * 60 + minutes : null;
	}
	const hours = /^\d{1,3}(\.\d{1,4})?$/.exec(typed.trim());
	return hours ? Math.round(Number(typed) * 60) : null;
}

/** Time typed, new or changed. The same key again changes nothing. @throws FieldError, RefusedError */
export function saveTime(
	world: World,
	jobId: number,
	key: string,
	id: number | null,
	input: unknown
): number {
	mustGoTo(world.db, jobId);
	const { hours, ...form } = parseForm(timeForm, input);
	const minutes = readHours(hours);
	if (minutes === null || minutes === 0 || minutes > 24 * 60)
		throw new FieldError({ hours: 'Hours such as 7.5 or 7:30, at most 24.' });
	return writeAtOnce(world.db, (tx) => {
		loadJob(tx, jobId);
		if (id !== null) {
			refuseBilled(tx, 'time', id);
			const row = tx
				.update(timeEntries)
				.set({ ...form, minutes })
				.where(and(eq(timeEntries.id, id), eq(timeEntries.jobId, jobId)))
				.run();
			if (row.changes === 0) throw new NotFoundError('This time');
			workChanged(tx, jobId, world.clock.now());
			return id;
		}
		const same = tx
			.select({ id: timeEntries.id })
			.from(timeEntries)
			.where(eq(timeEntries.key, key))
			.get();
		if (same) return same.id;
		const added = tx
			.insert(timeEntries)
			.values({ ...form, personId: actor()?.id ?? null, key, jobId, minutes })
			.returning({ id: timeEntries.id })
			.get().id;
		workChanged(tx, jobId, world.clock.now());
		return added;
	});
}

export function refuseBilled(tx: Transaction, type: 'time' | 'cost', id: number): void {
	if (isBilled(tx, type, [id]))
		throw new RefusedError('This is on an invoice already, so it stays as it is.');
}

export function removeTime(world: World, jobId: number, id: number): number | null {
	mustGoTo(world.db, jobId);
	return writeAtOnce(world.db, (tx) => {
		refuseBilled(tx, 'time', id);
		const row = tx
			.delete(timeEntries)
			.where(and(eq(timeEntries.id, id), eq(timeEntries.jobId, jobId)))
			.returning()
			.get();
		workChanged(tx, jobId, world.clock.now());
		return row ? toBin(tx, world, 'time', row) : null;
	});
}
