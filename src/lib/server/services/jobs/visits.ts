// Visits to a job: planned, moved, done.
import { must } from '../../actor';
import { and, asc, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import type { PlainDate } from '../../../core/calendar/types';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { customers, jobs, sites, visits } from '../../db/schema';
import { toBin } from '../business/bin';
import type { World } from '../../world';
import { NotFoundError } from '../../../core/refusals';
import { day, parseForm, text, timeOfDay } from '../business/fields';
import { loadJob } from './jobs';
import { standing } from './standing';
import { noteJob } from '../trail/jobs';

export const visitForm = z
	.object({
		date: day.refine((value) => value !== '', 'Which day?'),
		from: timeOfDay,
		to: timeOfDay,
		personId: z.number().int().positive().nullable().catch(null).default(null),
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
	must('work');
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
		const before = tx.select().from(visits).where(eq(visits.id, id)).get();
		const moved = before && (before.date !== form.date || before.from !== form.from);
		const result = tx
			.update(visits)
			.set({ ...form, ...(moved ? { sequence: before.sequence + 1 } : {}) })
			.where(and(eq(visits.id, id), eq(visits.jobId, jobId)))
			.run();
		if (result.changes === 0) throw new NotFoundError('This visit');
		return id;
	});
}

export function move(
	tx: Transaction,
	world: World,
	jobId: number,
	state: 'booked' | 'underWay'
): void {
	tx.update(jobs)
		.set({ state, updatedAt: world.clock.now(), version: sql`${jobs.version} + 1` })
		.where(eq(jobs.id, jobId))
		.run();
	noteJob(tx, jobId, world.clock.now(), state === 'booked' ? 'booked' : 'started');
}

/** @returns by what it is brought back; null where it was not there */
export function removeVisit(world: World, jobId: number, id: number): number | null {
	must('work');
	return writeAtOnce(world.db, (tx) => {
		const row = tx
			.delete(visits)
			.where(and(eq(visits.id, id), eq(visits.jobId, jobId)))
			.returning()
			.get();
		return row ? toBin(tx, world, 'visit', row) : null;
	});
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
			standing,
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
