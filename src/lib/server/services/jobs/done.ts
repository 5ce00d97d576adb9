// What was done on a job: visits, time with a clock that survives everything, costs.
import { and, asc, eq, isNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { LINE_KINDS } from '../../../core/figures/types';
import type { PlainDate } from '../../../core/calendar/types';
import { VAT_TREATMENTS } from '../../../core/regimes/types';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { customers, jobCosts, jobs, sites, timeEntries, visits } from '../../db/schema';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { isBilled, workChanged } from './takenParts';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { day, required, text, typedNumber, typedPercent } from '../business/fields';
import { loadJob } from './jobs';
import { noteJob } from '../trail/jobs';

const time = text(5).refine(
	(value) => value === '' || /^([01]\d|2[0-3]):[0-5]\d$/.test(value),
	'A time such as 09:30.'
);

export const visitForm = z
	.object({
		date: day.refine((value) => value !== '', 'Which day?'),
		from: time,
		to: time,
		person: text(100),
		note: text(5000),
		done: z.boolean().default(false)
	})
	.refine((visit) => visit.from === '' || visit.to === '' || visit.to >= visit.from, {
		message: 'It would end before it begins.',
		path: ['to']
	});

/** @throws FieldError, NotFoundError */
export function saveVisit(world: World, jobId: number, id: number | null, input: unknown): number {
	const form = parseForm(visitForm, input);
	return writeAtOnce(world.db, (tx) => {
		const job = loadJob(tx, jobId);
		if (id === null) {
			if (job.state === 'enquiry' || job.state === 'dropped') move(tx, world, jobId, 'booked');
			return tx
				.insert(visits)
				.values({ ...form, jobId })
				.returning({ id: visits.id })
				.get().id;
		}
		const result = tx
			.update(visits)
			.set(form)
			.where(and(eq(visits.id, id), eq(visits.jobId, jobId)))
			.run();
		if (result.changes === 0) throw new NotFoundError('This visit');
		return id;
	});
}

function move(tx: Transaction, world: World, jobId: number, state: 'booked' | 'underWay'): void {
	tx.update(jobs)
		.set({ state, updatedAt: world.clock.now(), version: sql`${jobs.version} + 1` })
		.where(eq(jobs.id, jobId))
		.run();
	noteJob(tx, jobId, world.clock.now(), state === 'booked' ? 'booked' : 'started');
}

export function removeVisit(world: World, jobId: number, id: number): void {
	world.db
		.delete(visits)
		.where(and(eq(visits.id, id), eq(visits.jobId, jobId)))
		.run();
}

/** The visits of a day, with where they lead. */
export function visitsOn(world: World, date: PlainDate) {
	return world.db
		.select({
			id: visits.id,
			from: visits.from,
			to: visits.to,
			person: visits.person,
			note: visits.note,
			done: visits.done,
			jobId: jobs.id,
			title: jobs.title,
			state: jobs.state,
			customer: customers.name,
			site: sites.name,
			address: sql<string>`coalesce(nullif(${sites.address}, ''), ${customers.address})`,
			accessNotes: sites.accessNotes
		})
		.from(visits)
		.innerJoin(jobs, eq(jobs.id, visits.jobId))
		.innerJoin(customers, eq(customers.id, jobs.customerId))
		.leftJoin(sites, eq(sites.id, jobs.siteId))
		.where(eq(visits.date, date))
		.orderBy(asc(visits.from), asc(visits.id))
		.all();
}

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
			throw new RefusedError('This job is finished. Take it up again first.');
		stopRunning(tx, now);
		if (job.state !== 'underWay') move(tx, world, jobId, 'underWay');
		return tx
			.insert(timeEntries)
			.values({
				key,
				jobId,
				visitId,
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

function stopRunning(tx: Transaction, now: number): number | null {
	const running = tx.select().from(timeEntries).where(isNull(timeEntries.minutes)).get();
	if (!running) return null;
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
			.where(isNull(timeEntries.minutes))
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
			.values({ ...form, key, jobId, minutes })
			.returning({ id: timeEntries.id })
			.get().id;
		workChanged(tx, jobId, world.clock.now());
		return added;
	});
}

function refuseBilled(tx: Transaction, type: 'time' | 'cost', id: number): void {
	if (isBilled(tx, type, [id]))
		throw new RefusedError('This is on an invoice already, so it stays as it is.');
}

export function removeTime(world: World, jobId: number, id: number): void {
	writeAtOnce(world.db, (tx) => {
		refuseBilled(tx, 'time', id);
		tx.delete(timeEntries)
			.where(and(eq(timeEntries.id, id), eq(timeEntries.jobId, jobId)))
			.run();
		workChanged(tx, jobId, world.clock.now());
	});
}

const costForm = z.object({
	date: day.refine((value) => value !== '', 'Which day?'),
	kind: z.enum(LINE_KINDS).default('materials'),
	description: required(2000, 'What was it?'),
	quantity: typedNumber('a quantity', { decimals: 4 }, true),
	unit: text(30),
	unitCost: typedNumber('what one cost', { decimals: 4 }, true),
	markUp: typedPercent('a mark-up', 1000),
	unitPrice: typedNumber('a price', { decimals: 4 }),
	vat: z.enum(VAT_TREATMENTS).default('standard'),
	vatReason: text(60),
	chargeable: z.boolean(),
	visitId: z.number().int().positive().nullable().default(null),
	itemId: z.number().int().positive().nullable().default(null)
});

/** A cost, new or changed. The same key again changes nothing. @throws FieldError, RefusedError */
export function saveCost(
	world: World,
	jobId: number,
	key: string,
	id: number | null,
	input: unknown
): number {
	const form = parseForm(costForm, input);
	return writeAtOnce(world.db, (tx) => {
		loadJob(tx, jobId);
		const now = world.clock.now();
		if (id !== null) {
			refuseBilled(tx, 'cost', id);
			const row = tx
				.update(jobCosts)
				.set(form)
				.where(and(eq(jobCosts.id, id), eq(jobCosts.jobId, jobId)))
				.run();
			if (row.changes === 0) throw new NotFoundError('This cost');
			workChanged(tx, jobId, now);
			return id;
		}
		const same = tx.select({ id: jobCosts.id }).from(jobCosts).where(eq(jobCosts.key, key)).get();
		if (same) return same.id;
		const added = tx
			.insert(jobCosts)
			.values({ ...form, key, jobId })
			.returning({ id: jobCosts.id })
			.get().id;
		workChanged(tx, jobId, now);
		return added;
	});
}

export function removeCost(world: World, jobId: number, id: number): void {
	writeAtOnce(world.db, (tx) => {
		refuseBilled(tx, 'cost', id);
		tx.delete(jobCosts)
			.where(and(eq(jobCosts.id, id), eq(jobCosts.jobId, jobId)))
			.run();
		workChanged(tx, jobId, world.clock.now());
	});
}
