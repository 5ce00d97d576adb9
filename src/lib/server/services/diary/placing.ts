// Visits placed, moved, made longer, repeated: what the diary does to them.
import { must } from '../../actor';
import { and, eq, gte, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { addDays } from '../../../core/calendar/manipulation';
import { daysBetween } from '../../../core/calendar/queries';
import { nextOccurrences, REPEAT_UNITS } from '../../../core/calendar/recurrence';
import { ConflictError, FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { people, visitPeople, visits } from '../../db/schema';
import type { World } from '../../world';
import { day, parseForm, text, timeOfDay } from '../business/fields';
import { loadJob } from '../jobs/jobs';
import { move } from '../jobs/visits';

const placeForm = z
	.object({
		date: day.refine((value) => value !== '', 'Which day?'),
		endDate: day,
		from: timeOfDay,
		to: timeOfDay,
		personId: z.coerce.number().int().nonnegative().catch(0),
		/** How often it had moved when it was looked at. */
		sequence: z.coerce.number().int().nonnegative(),
		/** Of one that repeats: all from here. */
		all: z.boolean().default(false)
	})
	.refine(({ from, to }) => from === '' || to === '' || to > from, {
		message: 'It would end before it begins.',
		path: ['to']
	});

export interface Placed {
	/** How it was, to be put back. */
	before: { date: string; endDate: string; from: string; to: string; personId: number };
	sequence: number;
	moved: boolean;
}

/**
 * Puts a visit somewhere else. Only what a customer would notice counts as moved.
 * @throws FieldError, NotFoundError; ConflictError where somebody else moved it meanwhile
 */
export function placeVisit(world: World, id: number, typed: unknown): Placed {
	must('work');
	const form = parseForm(placeForm, typed);
	return writeAtOnce(world.db, (tx) => {
		const row = loadVisit(tx, id);
		if (row.sequence !== form.sequence)
			throw new ConflictError('Somebody else moved it in the meantime. Look where it is now.');
		const personId = knownPerson(tx, form.personId);
		const endDate = form.endDate && form.endDate > form.date ? form.endDate : null;
		const moved = row.date !== form.date || row.from !== form.from || row.endDate !== endDate;
		const own = moved || row.to !== form.to || row.personId !== personId;
		if (own)
			tx.update(visits)
				.set({
					date: form.date,
					endDate,
					from: form.from,
					to: form.to,
					personId,
					// What was told for another time is not told for this one.
					...(moved ? { arriveFrom: '', arriveTo: '', sequence: row.sequence + 1 } : {})
				})
				.where(eq(visits.id, id))
				.run();
		if (moved) overtake(tx, id);
		if (form.all && row.series !== '' && own) followSeries(tx, row, form, personId);
		return {
			before: {
				date: row.date,
				endDate: row.endDate ?? row.date,
				from: row.from,
				to: row.to,
				personId: row.personId ?? 0
			},
			sequence: moved ? row.sequence + 1 : row.sequence,
			moved
		};
	});
}

/** Those that come after it in its series move by as many days, to the same time and person. */
function followSeries(
	tx: Transaction,
	row: typeof visits.$inferSelect,
	form: z.output<typeof placeForm>,
	personId: number | null
): void {
	const by = daysBetween(row.date, form.date);
	const later = tx
		.select()
		.from(visits)
		.where(
			and(
				eq(visits.series, row.series),
				gte(visits.date, row.date),
				ne(visits.id, row.id),
				eq(visits.done, false)
			)
		)
		.all();
	for (const one of later) {
		overtake(tx, one.id);
		tx.update(visits)
			.set({
				date: addDays(one.date, by),
				endDate: one.endDate && addDays(one.endDate, by),
				from: form.from,
				to: form.to,
				personId,
				sequence: one.sequence + 1
			})
			.where(eq(visits.id, one.id))
			.run();
	}
}

/** What was written about a visit and has not gone yet is not so any more. */
export function overtake(tx: Transaction, visitId: number): void {
	for (const outbox of ['mails', 'texts'])
		tx.run(
			sql`update ${sql.identifier(outbox)} set state = 'withdrawn' where state = 'queued' and told_id in (select id from told where visit_id = ${visitId})`
		);
}

export function loadVisit(db: Reader, id: number): typeof visits.$inferSelect {
	const row = db.select().from(visits).where(eq(visits.id, id)).get();
	if (!row) throw new NotFoundError('This visit');
	return row;
}

export function knownPerson(db: Reader, id: number): number | null {
	if (id === 0) return null;
	const row = db
		.select({ id: people.id })
		.from(people)
		.where(and(eq(people.id, id), sql`${people.removedAt} is null`))
		.get();
	if (!row) throw new FieldError({ personId: 'That person is not here any more.' });
	return id;
}

const bookForm = z.object({
	date: day.refine((value) => value !== '', 'Which day?'),
	from: timeOfDay,
	to: timeOfDay,
	personId: z.coerce.number().int().nonnegative().catch(0)
});

/** Books a job in. The same day and time again gives that visit back. @returns the visit @throws FieldError, NotFoundError */
export function bookJob(world: World, jobId: number, typed: unknown): number {
	must('work');
	const form = parseForm(bookForm, typed);
	return writeAtOnce(world.db, (tx) => {
		const job = loadJob(tx, jobId);
		const personId = knownPerson(tx, form.personId);
		const same = tx
			.select({ id: visits.id })
			.from(visits)
			.where(and(eq(visits.jobId, jobId), eq(visits.date, form.date), eq(visits.from, form.from)))
			.get();
		if (same) return same.id;
		// Looking at it makes no job of an enquiry.
		if (job.state === 'dropped') move(tx, world, jobId, 'booked');
		return tx
			.insert(visits)
			.values({ jobId, date: form.date, from: form.from, to: form.to, personId })
			.returning({ id: visits.id })
			.get().id;
	});
}

const detailForm = z.object({
	needs: z.coerce.number().int().min(1, 'One at least.').max(50, 'At most 50.').catch(1),
	pencil: z.boolean().default(false),
	weekend: z.boolean().default(false),
	arriveFrom: timeOfDay,
	arriveTo: timeOfDay,
	others: z.array(z.coerce.number().int().positive()).max(50).default([]),
	/** Minutes to get there; empty: as the diary has it. */
	travel: z
		.union([
			z.literal('').transform(() => null),
			z.coerce
				.number('How many minutes?')
				.int('Whole minutes.')
				.min(0)
				.max(300, 'At most five hours.')
		])
		.default(null),
	note: text(5000)
});

/** Who else goes, how many it takes, whether it is firm, and what the customer is told. @throws FieldError */
export function saveVisitDetail(world: World, id: number, typed: unknown): void {
	must('work');
	const { others, ...form } = parseForm(detailForm, typed);
	if ((form.arriveFrom === '') !== (form.arriveTo === ''))
		throw new FieldError({ arriveTo: 'From when and until when, or neither.' });
	writeAtOnce(world.db, (tx) => {
		const row = loadVisit(tx, id);
		const told = row.arriveFrom !== form.arriveFrom || row.arriveTo !== form.arriveTo;
		tx.update(visits)
			.set({ ...form, ...(told ? { sequence: row.sequence + 1 } : {}) })
			.where(eq(visits.id, id))
			.run();
		tx.delete(visitPeople).where(eq(visitPeople.visitId, id)).run();
		for (const personId of new Set(others))
			if (personId !== row.personId)
				tx.insert(visitPeople)
					.values({ visitId: id, personId: knownPerson(tx, personId)! })
					.run();
	});
}

const repeatForm = z.object({
	every: z.coerce.number().int().min(1, 'Every one at least.').max(52, 'At most 52.'),
	unit: z.enum(REPEAT_UNITS),
	times: z.coerce.number().int().min(2, 'Twice at least.').max(100, 'At most 100 times.')
});

/** Repeats a visit; it is the first. Days that are no working days go to the next one. @returns how many there are now */
export function repeatVisit(world: World, id: number, typed: unknown): number {
	must('work');
	const { every, unit, times } = parseForm(repeatForm, typed);
	return writeAtOnce(world.db, (tx) => {
		const { id: _id, ...row } = loadVisit(tx, id);
		if (row.series !== '') throw new FieldError({ every: 'It repeats already.' });
		const series = `v${id}`;
		const days = row.endDate ? daysBetween(row.date, row.endDate) : 0;
		const all = nextOccurrences(
			{ start: row.date, every, unit, weekend: 'nextWorkingDay', end: { after: times } },
			row.date,
			times
		);
		let count = 0;
		for (const { date } of all) {
			count++;
			if (count === 1) tx.update(visits).set({ series }).where(eq(visits.id, id)).run();
			else
				tx.insert(visits)
					.values({
						...row,
						series,
						date,
						endDate: row.endDate && addDays(date, days),
						sequence: 0,
						done: false
					})
					.run();
		}
		return count;
	});
}
