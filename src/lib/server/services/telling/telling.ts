// Telling the customer of visits: booked, moved, off, the day before, on the way, finished. Each once for a visit as it stands, read
// before it goes, never for one that has moved since.
import { must } from '../../actor';
import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { addDays } from '../../../core/calendar/manipulation';
import { londonTime } from '../../../core/calendar/conversion';
import { LINK_PLACEHOLDER, textParts, type Message } from '../../../core/documents/wording';
import { isMobile, plainNumber } from '../../../core/regimes/gb/checks';
import { MOST_TEXT_PARTS } from '../../../core/wordings/texts';
import { ConflictError, FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { customers, told, TOLD_KINDS, visits, type ToldKind } from '../../db/schema';
import type { World } from '../../world';
import { parseForm, text } from '../business/fields';
import { newToken } from '../business/keys';
import { loadBusiness } from '../business/settings';
import { visitsBetween } from '../diary/diary';
import { diaryWays } from '../diary/ways';
import { mobileOf } from '../customers/parts';
import { readAddresses, readMessage } from '../invoices/send';
import { queueMail, queueText } from '../messages/outbox';
import { hasStopped, STOPPED } from '../messages/stopped';
import { textFor, wordsFor, arrivalFor, type Visit, type Job } from './words';

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
