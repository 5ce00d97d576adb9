// The diary: visits of all jobs placed, moved, made longer, repeated; own blocks; how it is kept.
import { must } from '../../actor';
import { and, asc, eq, gte, ne, sql } from 'drizzle-orm';
import { z } from 'zod';
import { addDays } from '../../../core/calendar/manipulation';
import { displayDate } from '../../../core/calendar/conversion';
import { daysBetween } from '../../../core/calendar/queries';
import { nextOccurrences, REPEAT_UNITS } from '../../../core/calendar/recurrence';
import { arrivalOf } from '../../../core/diary/conflicts';
import type { DiaryBlock, DiaryVisit } from '../../../core/diary/types';
import { mayBeginFrom } from '../../../core/regimes/gb/consumer';
import { ConflictError, FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { diaryBlocks, diarySettings, jobLines, people, visitPeople, visits } from '../../db/schema';
import type { World } from '../../world';
import { day, parseForm, required, text, timeOfDay } from '../business/fields';
import { loadJob } from '../jobs/jobs';
import { workChanged } from '../jobs/takenParts';
import { move } from '../jobs/visits';

export interface DiaryWays {
	from: string;
	to: string;
	arrivalMinutes: number;
	travelMinutes: number;
	dayBefore: boolean;
}

export function diaryWays(db: Reader): DiaryWays {
	const row = db.select().from(diarySettings).get();
	return row
		? {
				from: row.from,
				to: row.to,
				arrivalMinutes: row.arrivalMinutes,
				travelMinutes: row.travelMinutes,
				dayBefore: row.dayBefore
			}
		: {
				from: '08:00',
				to: '17:00',
				arrivalMinutes: 120,
				travelMinutes: 15,
				dayBefore: false
			};
}

const waysForm = z
	.object({
		from: timeOfDay,
		to: timeOfDay,
		arrivalMinutes: z.coerce
			.number('How many minutes?')
			.int('Whole minutes.')
			.min(0, 'Not below zero.')
			.max(600, 'At most ten hours.'),
		travelMinutes: z.coerce
			.number('How many minutes?')
			.int('Whole minutes.')
			.min(0, 'Not below zero.')
			.max(300, 'At most five hours.')
			.default(15),
		dayBefore: z.boolean().default(false)
	})
	.refine(({ from, to }) => from !== '' && to > from, {
		message: 'Work ends after it begins.',
		path: ['to']
	});

/** @throws FieldError */
export function saveDiaryWays(world: World, typed: unknown): void {
	must('settings');
	const form = parseForm(waysForm, typed);
	world.db
		.insert(diarySettings)
		.values({ id: 1, ...form })
		.onConflictDoUpdate({ target: diarySettings.id, set: form })
		.run();
}

/** The day of a contract that can be cancelled, and whose work was not asked for earlier: it may begin after the period only. */
const WAITS_SINCE = sql.raw(
	"(select a.agreed_on from acceptances a join quotes q on q.id = a.quote_id where q.job_id = j.id and q.for_job_id is null and json_extract(a.law, '$.may') and not json_extract(a.law, '$.begin'))"
);

interface VisitRow {
	id: number;
	jobId: number;
	title: string;
	customer: string;
	site: string | null;
	address: string;
	phone: string;
	date: string;
	endDate: string | null;
	from: string;
	to: string;
	arriveFrom: string;
	arriveTo: string;
	personId: number | null;
	others: string | null;
	needs: number;
	pencil: number;
	done: number;
	series: string;
	sequence: number;
	told: number;
	knows: number;
	confirmed: number;
	state: string;
	agreedOn: string | null;
	note: string;
	travel: number | null;
	weekend: number;
	awaited: string | null;
}

/** All visits that touch a span of days, the earliest first. @param personId null: everybody's */
export function visitsBetween(
	db: Reader,
	from: string,
	to: string,
	personId: number | null = null
): DiaryVisit[] {
	const { arrivalMinutes, travelMinutes } = diaryWays(db);
	const rows = db.all<VisitRow>(sql`
		select v.id, v.job_id as jobId, j.title, c.name as customer, s.name as site,
			coalesce(nullif(s.address, ''), c.address) as address, coalesce(nullif(c.phone, ''), '') as phone,
			v.date, v.end_date as endDate, v."from", v."to", v.arrive_from as arriveFrom, v.arrive_to as arriveTo,
			v.person_id as personId, (select group_concat(p.person_id) from visit_people p where p.visit_id = v.id) as others,
			v.needs, v.pencil, v.done, v.series, v.sequence, v.note, v.travel, v.weekend,
			(select json_group_array(json_object('what', m.what, 'expectedOn', m.expected_on)) from job_materials m where m.job_id = v.job_id and m.here_on is null) as awaited,
			exists (select 1 from told t where t.visit_id = v.id and t.sequence = v.sequence and t.kind in ('booked', 'moved', 'dayBefore')) as told,
			exists (select 1 from told t where t.visit_id = v.id and t.kind in ('booked', 'moved', 'dayBefore')) as knows,
			exists (select 1 from told t where t.visit_id = v.id and t.sequence = v.sequence and t.answer = 'confirmed') as confirmed,
			j.state,
			${WAITS_SINCE} as agreedOn
		from visits v indexed by visits_by_date join jobs j on j.id = v.job_id join customers c on c.id = j.customer_id left join sites s on s.id = j.site_id
		where v.date <= ${to} and v.date >= ${addDays(from, -60)} and coalesce(v.end_date, v.date) >= ${from}
			${personId === null ? sql`` : sql`and (v.person_id = ${personId} or exists (select 1 from visit_people p where p.visit_id = v.id and p.person_id = ${personId}))`}
		order by v.date, v."from", v.id`);
	return rows.map((row): DiaryVisit => ({
		id: row.id,
		jobId: row.jobId,
		title: row.title,
		customer: row.customer,
		place: row.site ?? '',
		address: row.address,
		phone: row.phone,
		date: row.date,
		endDate: row.endDate ?? row.date,
		from: row.from,
		to: row.to,
		arrival: arrivalOf(row.from, arrivalMinutes, { from: row.arriveFrom, to: row.arriveTo }),
		people: [
			...new Set([row.personId ?? 0, ...(row.others ? row.others.split(',').map(Number) : [])])
		],
		needs: row.needs,
		pencil: Boolean(row.pencil),
		done: Boolean(row.done),
		series: row.series,
		sequence: row.sequence,
		told: Boolean(row.told),
		knows: Boolean(row.knows),
		confirmed: Boolean(row.confirmed),
		lookAt: row.state === 'enquiry',
		mayBegin: row.agreedOn === null ? null : mayBeginFrom(row.agreedOn),
		note: row.note,
		weekend: Boolean(row.weekend),
		travel: row.travel ?? travelMinutes,
		ownTravel: row.travel,
		awaited: JSON.parse(row.awaited ?? '[]') as DiaryVisit['awaited']
	}));
}

/** The day of a visit; undefined where there is none. */
export const dayOfVisit = (db: Reader, id: number): string | undefined =>
	db.select({ date: visits.date }).from(visits).where(eq(visits.id, id)).get()?.date;

/** Own blocks that touch a span of days. */
export const blocksBetween = (db: Reader, from: string, to: string): DiaryBlock[] =>
	db
		.select()
		.from(diaryBlocks)
		.where(sql`${diaryBlocks.from} <= ${to} and ${diaryBlocks.to} >= ${from}`)
		.orderBy(asc(diaryBlocks.from))
		.all();

export interface ToBook {
	jobId: number;
	number: string;
	title: string;
	customer: string;
	/** It is only looked at, for a quote. */
	lookAt: boolean;
	mayBegin: string | null;
	duration: string;
}

/** Work without a day to come: what is booked or under way, and what is to be looked at. */
export function toBook(db: Reader, today: string): ToBook[] {
	return db
		.all<{
			jobId: number;
			number: string;
			title: string;
			customer: string;
			state: string;
			agreedOn: string | null;
			duration: string | null;
		}>(
			sql`select j.id as jobId, j.number, j.title, c.name as customer, j.state,
				${WAITS_SINCE} as agreedOn,
				(select json_extract(q.sheet, '$.quote.duration') from quotes q where q.job_id = j.id and q.for_job_id is null limit 1) as duration
			from jobs j join customers c on c.id = j.customer_id
			where j.state in ('booked', 'underWay', 'enquiry')
				and not exists (select 1 from visits v where v.job_id = j.id and coalesce(v.end_date, v.date) >= ${today})
				and not (j.state = 'underWay' and exists (select 1 from visits v where v.job_id = j.id))
			order by j.id desc limit 60`
		)
		.map(({ state, agreedOn, duration, ...job }) => ({
			...job,
			lookAt: state === 'enquiry',
			mayBegin: agreedOn === null ? null : mayBeginFrom(agreedOn),
			duration: duration ?? ''
		}));
}

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

function loadVisit(db: Reader, id: number): typeof visits.$inferSelect {
	const row = db.select().from(visits).where(eq(visits.id, id)).get();
	if (!row) throw new NotFoundError('This visit');
	return row;
}

function knownPerson(db: Reader, id: number): number | null {
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

const blockForm = z
	.object({
		title: required(100, 'What for?'),
		from: day.refine((value) => value !== '', 'From which day?'),
		to: day,
		personId: z.coerce.number().int().nonnegative().catch(0)
	})
	.refine(({ from, to }) => to === '' || to >= from, {
		message: 'It would end before it begins.',
		path: ['to']
	});

/** @throws FieldError */
export function addBlock(world: World, typed: unknown): number {
	must('work');
	const { personId, ...form } = parseForm(blockForm, typed);
	return world.db
		.insert(diaryBlocks)
		.values({ ...form, to: form.to || form.from, personId: knownPerson(world.db, personId) })
		.returning({ id: diaryBlocks.id })
		.get().id;
}

export function removeBlock(world: World, id: number): void {
	must('work');
	world.db.delete(diaryBlocks).where(eq(diaryBlocks.id, id)).run();
}

/** Nobody was in, or it was called off: the visit is done, and a wasted journey is offered to bill. */
export function callOff(world: World, id: number, typed: unknown): void {
	must('work');
	const { why } = parseForm(z.object({ why: z.enum(['nobodyIn', 'weather']) }), typed);
	writeAtOnce(world.db, (tx) => {
		const row = loadVisit(tx, id);
		const words = why === 'nobodyIn' ? 'Nobody was in.' : 'Called off for weather.';
		tx.update(visits)
			.set({ done: true, note: [row.note, words].filter(Boolean).join('\n') })
			.where(eq(visits.id, id))
			.run();
	});
}

/**
 * Puts a journey for nothing on its job, to be billed: at the job's hourly rate until the owner says otherwise. The same visit
 * again changes nothing.
 * @returns the job @throws NotFoundError
 */
export function chargeJourney(world: World, id: number): number {
	must('work');
	return writeAtOnce(world.db, (tx) => {
		const visit = loadVisit(tx, id);
		const job = loadJob(tx, visit.jobId);
		const description = `A journey for nothing on ${displayDate(visit.date)}${visit.from ? `, ${visit.from}` : ''}`;
		const lines = tx.select().from(jobLines).where(eq(jobLines.jobId, job.id)).all();
		if (lines.some((line) => line.description === description)) return job.id;
		tx.insert(jobLines)
			.values({
				jobId: job.id,
				position: lines.length,
				kind: 'travel',
				description,
				quantity: '1',
				unitPrice: job.hourlyRate || '0.00',
				extra: true
			})
			.run();
		workChanged(tx, job.id, world.clock.now());
		return job.id;
	});
}
