// Telling the customer of visits: booked, moved, off, the day before, on the way, finished. Each once for a visit as it stands, read
// before it goes, never for one that has moved since.
import { must } from '../../actor';
import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { addDays } from '../../../core/calendar/manipulation';
import { displayDate, displayWeekday, londonTime } from '../../../core/calendar/conversion';
import { LINK_PLACEHOLDER, sender, textParts, type Message } from '../../../core/documents/wording';
import { isMobile, plainNumber } from '../../../core/regimes/gb/checks';
import { fillWords, type Values } from '../../../core/wordings/fill';
import { MOST_TEXT_PARTS } from '../../../core/wordings/texts';
import { greetingOf, wordsOf, type Voice, type WordingKind } from '../../../core/wordings/kinds';
import { arrivalOf } from '../../../core/diary/conflicts';
import { writeCalendar } from '../../../core/formats/icalendar';
import { ConflictError, FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { customers, jobs, told, TOLD_KINDS, visits, type ToldKind } from '../../db/schema';
import type { World } from '../../world';
import { parseForm, text } from '../business/fields';
import { isToken, newToken } from '../business/keys';
import { loadBusiness } from '../business/settings';
import { diaryWays, visitsBetween } from '../diary/diary';
import { visitUid } from '../diary/feed';
import { mobileOf } from '../customers/parts';
import { readAddresses, readMessage } from '../invoices/send';
import { queueMail, queueText } from '../messages/outbox';
import { hasStopped, STOPPED } from '../messages/stopped';
import { voiceFor } from '../wordings/voice';

const WORDING: Readonly<Record<ToldKind, WordingKind>> = {
	booked: 'visitBooked',
	moved: 'visitMoved',
	cancelled: 'visitCancelled',
	dayBefore: 'visitDayBefore',
	onTheWay: 'visitOnTheWay',
	finished: 'visitFinished'
};

/** What goes by itself goes between these hours. */
const QUIET = { from: '08:00', to: '20:00' };

export interface Proposal extends Message {
	to: string;
	kind: ToldKind;
	sequence: number;
	/** It was told already, as it stands. */
	before: boolean;
	/** As a text: to which number, what it says, and in how many parts it goes. */
	mobile: string;
	words: string;
	/** Pounds for each part; empty: not known. */
	textPrice: string;
	/** As they were told last. */
	by: 'mail' | 'text';
	/** Whom; and that they are told of no visits. */
	customer: string;
	quiet: boolean;
}

/** What would be said of a visit now. @throws NotFoundError */
export function proposeTelling(
	world: World,
	visitId: number,
	kind: ToldKind,
	minutes = 20
): Proposal {
	const { db } = world;
	const { visit, job, to, mobile } = subjectOf(db, visitId);
	const { textPrice } = loadBusiness(db);
	return {
		...wordsFor(world, visit, job, kind, minutes),
		to,
		mobile,
		words: textFor(world, visit, job, kind, minutes),
		textPrice,
		by: wayOf(db, job.customerId, to, mobile),
		kind,
		sequence: visit.sequence,
		before: wasTold(db, keyOf(visitId, kind, visit.sequence)),
		customer: job.customer,
		quiet: isQuiet(db, job.customerId)
	};
}

const keyOf = (visitId: number, kind: ToldKind, sequence: number) =>
	`visit:${visitId}:${kind}:${sequence}`;

const wasTold = (db: Reader, key: string): boolean =>
	db.select({ id: told.id }).from(told).where(eq(told.key, key)).get() !== undefined;

type Visit = typeof visits.$inferSelect;
interface Job {
	id: number;
	title: string;
	customerId: number;
	customer: string;
	household: boolean;
	place: string;
	/** Who is told: whoever is at the site, where that is another. */
	greeted: string | null;
}

interface Subject {
	visit: Visit;
	job: Job;
	to: string;
	mobile: string;
}

/** A visit, and who hears of it: the person at the site where one is named, else the customer. @throws NotFoundError */
function subjectOf(db: Reader, visitId: number): Subject {
	const visit = db.select().from(visits).where(eq(visits.id, visitId)).get();
	if (!visit) throw new NotFoundError('This visit');
	const { kind, email, there, thereEmail, therePhone, ...job } = db.get<
		Omit<Job, 'household' | 'greeted'> & {
			kind: string;
			email: string;
			there: string;
			thereEmail: string;
			therePhone: string;
		}
	>(sql`
		select j.id, j.title, c.id as customerId, c.name as customer, c.kind, c.email,
			coalesce(s.name, '') as place, coalesce(s.contact_name, '') as there,
			coalesce(s.contact_email, '') as thereEmail, coalesce(s.contact_phone, '') as therePhone
		from jobs j join customers c on c.id = j.customer_id left join sites s on s.id = j.site_id where j.id = ${visit.jobId}`)!;
	const mobile = isMobile(therePhone) && !hasStopped(db, therePhone) ? therePhone : '';
	// The tenant hears of the visit; the bill goes where it goes.
	const other = thereEmail !== '' || mobile !== '';
	return {
		visit,
		job: { ...job, household: kind === 'household', greeted: other ? there : null },
		to: other ? thereEmail : email,
		mobile: other ? mobile : mobileOf(db, job.customerId)
	};
}

/** How a customer was told last; before that by mail, or by text where there is no address. */
function wayOf(db: Reader, customerId: number, to: string, mobile: string): 'mail' | 'text' {
	const last = db.get<{ to: string }>(
		sql`select t."to" from told t join jobs j on j.id = t.job_id where j.customer_id = ${customerId} order by t.id desc limit 1`
	);
	if (last?.to.includes('@') && to !== '') return 'mail';
	if (last && !last.to.includes('@') && mobile !== '') return 'text';
	return to === '' && mobile !== '' ? 'text' : 'mail';
}

/** What a text says: the same news in a line. */
const textFor = (world: World, visit: Visit, job: Job, kind: ToldKind, minutes: number): string => {
	const voice = voiceFor(world.db, job.customerId);
	const values = valuesFor(world, voice, visit, job, minutes);
	const news = fillWords({ subject: '', text: NEWS[kind] }, values).text;
	return fillWords(wordsOf(voice, 'visitText'), { ...values, news }).text;
};

/** The news itself, in few words. */
const NEWS: Readonly<Record<ToldKind, string>> = {
	booked: 'we come on {date}, {arrival}',
	moved: 'we now come on {date}, {arrival}',
	cancelled: 'we do not come on {date} after all',
	dayBefore: 'we come tomorrow, {date}, {arrival}',
	onTheWay: 'we are on the way, with you in about {minutes} minutes',
	finished: 'we have finished what we came for today'
};

function wordsFor(world: World, visit: Visit, job: Job, kind: ToldKind, minutes: number): Message {
	const voice = voiceFor(world.db, job.customerId);
	return fillWords(wordsOf(voice, WORDING[kind]), valuesFor(world, voice, visit, job, minutes));
}

/** Between when and when somebody comes, as the customer is told. */
const arrivalFor = (db: Reader, { from, arriveFrom, arriveTo }: Visit): string =>
	arrivalOf(from, diaryWays(db).arrivalMinutes, { from: arriveFrom, to: arriveTo });

function valuesFor(world: World, voice: Voice, visit: Visit, job: Job, minutes: number): Values {
	const { db } = world;
	return {
		...sender(loadBusiness(db)),
		greeting:
			job.greeted === null
				? greetingOf(voice, job.household, job.customer)
				: job.greeted === ''
					? 'Hello'
					: `Hello ${job.greeted}`,
		customer: job.customer,
		title: job.title,
		place: job.place,
		date: displayWeekday(visit.date),
		arrival: arrivalFor(db, visit),
		who: visit.person,
		minutes: String(minutes)
	};
}

const tellForm = z.object({
	kind: z.enum(TOLD_KINDS),
	sequence: z.coerce.number().int().nonnegative(),
	by: z.enum(['mail', 'text']).catch('mail'),
	to: text(300),
	subject: text(300),
	text: text(20_000),
	mobile: text(40),
	words: text(2000)
});

/**
 * Tells the customer. The same thing of the same visit as it stands goes once, whoever presses.
 * @throws FieldError; ConflictError where it has moved since it was read
 */
export function tellCustomer(world: World, visitId: number, typed: unknown): boolean {
	must('work');
	const form = parseForm(tellForm, typed);
	const way: Way =
		form.by === 'text'
			? readText(world, form.mobile, form.words)
			: { to: readAddresses(form.to), message: readMessage(form) };
	return writeAtOnce(world.db, (tx) => {
		const { visit, job } = subjectOf(tx, visitId);
		if (visit.sequence !== form.sequence)
			throw new ConflictError('The visit has moved since. Read what would be said now.');
		return send(tx, world, visit, job, form.kind, way);
	});
}

/** A message to addresses, or a text to a number. */
type Way = { to: string; message: Message } | { to: string; words: string };

/** @throws FieldError */
function readText(world: World, mobile: string, words: string): Way {
	const problems: Record<string, string> = {};
	const to = plainNumber(mobile);
	if (!isMobile(to)) problems.mobile = 'A mobile number, such as 07700 900123.';
	else if (hasStopped(world.db, to)) problems.mobile = `${STOPPED} on this number.`;
	// As it goes, with a link of the usual length.
	const written = words.replaceAll(LINK_PLACEHOLDER, `${world.origin}/v/${newToken()}`);
	if (words.trim() === '') problems.words = 'What shall it say?';
	else if (textParts(written) > MOST_TEXT_PARTS)
		problems.words = 'Too long for a text: send it by e-mail.';
	if (Object.keys(problems).length) throw new FieldError(problems);
	return { to, words };
}

function send(
	tx: Transaction,
	world: World,
	visit: Visit,
	job: Job,
	kind: ToldKind,
	way: Way
): boolean {
	const { to } = way;
	const token = newToken();
	const row = tx
		.insert(told)
		.values({
			key: keyOf(visit.id, kind, visit.sequence),
			visitId: visit.id,
			jobId: job.id,
			kind,
			date: visit.date,
			arrival: arrivalFor(tx, visit),
			sequence: visit.sequence,
			to,
			token,
			at: world.clock.now()
		})
		.onConflictDoNothing()
		.returning({ id: told.id })
		.get();
	if (!row) return false;
	const link = `${world.origin}/v/${token}`;
	const key = `told:${row.id}`;
	if ('words' in way)
		queueText(tx, world, {
			key,
			toldId: row.id,
			to,
			text: way.words.replaceAll(LINK_PLACEHOLDER, link)
		});
	else queueMail(tx, world, { key, kind: 'visit', toldId: row.id, to, ...way.message, link });
	return true;
}

/** Tells of tomorrow’s visits, where the diary is set so: by day, once each. Safe to run twice. */
export function tellOfTomorrow(world: World): void {
	const now = londonTime(world.clock.now());
	if (now < QUIET.from || now >= QUIET.to) return;
	if (!diaryWays(world.db).dayBefore) return;
	const tomorrow = addDays(world.clock.today(), 1);
	for (const { id, pencil, done, sequence } of visitsBetween(world.db, tomorrow, tomorrow)) {
		if (pencil || done || wasTold(world.db, keyOf(id, 'dayBefore', sequence))) continue;
		writeAtOnce(world.db, (tx) => {
			const { visit, job, to, mobile } = subjectOf(tx, id);
			if (visit.date !== tomorrow || isQuiet(tx, job.customerId)) return;
			if (wayOf(tx, job.customerId, to, mobile) === 'text' && mobile)
				send(tx, world, visit, job, 'dayBefore', {
					to: plainNumber(mobile),
					words: textFor(world, visit, job, 'dayBefore', 0)
				});
			else if (to)
				send(tx, world, visit, job, 'dayBefore', {
					to,
					message: wordsFor(world, visit, job, 'dayBefore', 0)
				});
		});
	}
}

/** Customers that want no news of visits. */
const isQuiet = (db: Reader, customerId: number): boolean =>
	db
		.select({ quiet: customers.noVisitNews })
		.from(customers)
		.where(eq(customers.id, customerId))
		.get()?.quiet ?? false;

/** The customer of a visit is told of none from now on, or of all again. @throws NotFoundError */
export function setVisitNews(world: World, visitId: number, typed: unknown): void {
	must('work');
	const { quiet } = parseForm(z.object({ quiet: z.boolean() }), typed);
	const { job } = subjectOf(world.db, visitId);
	world.db
		.update(customers)
		.set({ noVisitNews: quiet })
		.where(eq(customers.id, job.customerId))
		.run();
}

/** What a link in such a message shows. @throws NotFoundError */
export function toldPage(world: World, token: string) {
	const { db } = world;
	const row = isToken(token)
		? db.select().from(told).where(eq(told.token, token)).get()
		: undefined;
	if (!row) throw new NotFoundError('This page');
	const job = db.select({ title: jobs.title }).from(jobs).where(eq(jobs.id, row.jobId)).get()!;
	const visit =
		row.visitId === null
			? undefined
			: db.select().from(visits).where(eq(visits.id, row.visitId)).get();
	const now = visit
		? visitsBetween(db, visit.date, visit.date).find(({ id }) => id === visit.id)
		: undefined;
	const { tradingName, ownerName, phone } = loadBusiness(db);
	return {
		id: row.id,
		title: job.title,
		from: tradingName || ownerName,
		phone,
		date: now?.date ?? row.date,
		arrival: now?.arrival ?? row.arrival,
		address: now ? [now.place, now.address].filter(Boolean).join('\n') : '',
		off: visit === undefined || row.kind === 'cancelled',
		past: (now?.date ?? row.date) < world.clock.today(),
		answer: row.answer,
		words: row.words
	};
}

const answerForm = z.object({ answer: z.enum(['confirmed', 'other']), words: text(1000) });

/** The customer confirms, or asks for another time: the owner hears of it. @throws FieldError, NotFoundError */
export function answerVisit(world: World, token: string, typed: unknown): void {
	const { answer, words } = parseForm(answerForm, typed);
	if (answer === 'other' && words === '')
		throw new FieldError({ words: 'Which times would suit you?' });
	const page = toldPage(world, token);
	writeAtOnce(world.db, (tx) => {
		const { changes } = tx
			.update(told)
			.set({ answer, words, answeredAt: world.clock.now() })
			.where(
				and(eq(told.id, page.id), sql`(${told.answer} <> ${answer} or ${told.words} <> ${words})`)
			)
			.run();
		const { email } = loadBusiness(tx);
		if (!changes || answer !== 'other' || !email) return;
		const row = tx.select().from(told).where(eq(told.id, page.id)).get()!;
		queueMail(tx, world, {
			key: `visitAnswer:${page.id}:${world.clock.now()}`,
			kind: 'visit',
			to: email,
			subject: `Another time, please: ${page.title}`,
			text: `About the visit of ${displayDate(page.date)} for ${page.title}:\n\n${words.replaceAll('{link}', '(link)')}\n\nThe job: {link}`,
			link: `${world.origin}/work/${row.jobId}`
		});
	});
}

/** The visit as a calendar file: the same name and a higher sequence each time it moves. @throws NotFoundError */
export function toldCalendar(world: World, token: string): string {
	const row = isToken(token)
		? world.db.select().from(told).where(eq(told.token, token)).get()
		: undefined;
	if (!row) throw new NotFoundError('This page');
	const page = toldPage(world, token);
	const visit =
		row.visitId === null
			? undefined
			: world.db.select().from(visits).where(eq(visits.id, row.visitId)).get();
	return writeCalendar(
		[
			{
				uid: visitUid(world, row.visitId ?? 0),
				title: `${page.title}, ${page.from}`,
				place: page.address,
				note: page.arrival,
				date: page.date,
				endDate: visit?.endDate ?? page.date,
				from: visit?.arriveFrom || visit?.from || '',
				to: visit?.arriveTo || visit?.to || '',
				sequence: (visit?.sequence ?? row.sequence) + (page.off ? 1 : 0),
				cancelled: page.off,
				writtenAt: world.clock.now()
			}
		],
		page.off ? 'CANCEL' : 'PUBLISH'
	);
}

/** The same for the mail that tells of it, as it stands when it goes out; null where there is nothing to put into a calendar. */
export function calendarOf(world: World, toldId: number): { content: string; off: boolean } | null {
	const row = world.db.select().from(told).where(eq(told.id, toldId)).get();
	if (!row || row.kind === 'onTheWay' || row.kind === 'finished') return null;
	return { content: toldCalendar(world, row.token), off: toldPage(world, row.token).off };
}
