// Enquiries: written down by hand or asked through the owner's page; answered, looked at, quoted, made a job, or closed with a
// reason. None gets lost: what is open is a next move.
import { must } from '../../actor';
import { and, eq, inArray, lt, sql } from 'drizzle-orm';
import { z } from 'zod';
import { addMonths } from '../../../core/calendar/manipulation';
import { londonMoment } from '../../../core/calendar/conversion';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { enquiries, files } from '../../db/schema';
import type { World } from '../../world';
import { day, email, parseForm, required, text, timeOfDay } from '../business/fields';
import { workKindById } from '../business/workKinds';
import { addNamed } from '../customers/byName';
import { copyFiles } from '../files/files';
import { readAddresses } from '../invoices/send';
import { beginOnce, beginForm } from '../jobs/begin';
import { queueMail } from '../messages/outbox';

export type Enquiry = typeof enquiries.$inferSelect;

/** One that came to nothing is kept so long. */
export const KEPT_MONTHS = 12;

const answers = z
	.array(z.object({ question: z.string().max(500), answer: z.string().trim().max(2000) }))
	.max(100)
	.default([]);

export const enquiryForm = z.object({
	name: required(200, 'Who asks?'),
	email,
	phone: text(50),
	place: text(1000),
	what: required(5000, 'What is it about?'),
	wanted: text(200),
	source: text(200),
	workKindId: z.number().int().positive().nullable().catch(null).default(null),
	answers,
	note: text(5000)
});

/** Writes one down. The same key again gives that one back. @throws FieldError */
export function addEnquiry(
	world: World,
	key: string,
	typed: unknown,
	came: 'hand' | 'page' = 'hand'
): number {
	if (came === 'hand') must('work');
	const form = parseForm(enquiryForm, typed);
	return writeAtOnce(world.db, (tx) => {
		const same = tx
			.select({ id: enquiries.id })
			.from(enquiries)
			.where(eq(enquiries.key, key))
			.get();
		if (same) return same.id;
		if (form.workKindId !== null && !workKindById(tx, form.workKindId))
			throw new FieldError({ workKindId: 'This kind of work is gone. Choose another.' });
		const now = world.clock.now();
		return tx
			.insert(enquiries)
			.values({
				...form,
				answers: form.answers.filter(({ answer }) => answer !== ''),
				key,
				came,
				state: 'open',
				customerId: knownAs(tx, form),
				createdAt: now,
				movedAt: now
			})
			.returning({ id: enquiries.id })
			.get().id;
	});
}

/** The customer of this e-mail or phone, where it is one and only one. */
function knownAs(
	tx: Transaction,
	{ email, phone }: { email: string; phone: string }
): number | null {
	const digits = phone.replace(/\D/g, '');
	const found = tx.all<{ id: number }>(
		sql`select id from customers where archived_at is null and (
			(${email} <> '' and lower(email) = lower(${email})) or (${digits} <> '' and length(${digits}) > 6 and replace(replace(replace(phone, ' ', ''), '-', ''), '+', '') = ${digits})) limit 2`
	);
	return found.length === 1 ? found[0]!.id : null;
}

/** @throws NotFoundError */
export function loadEnquiry(db: Reader, id: number): Enquiry {
	const row = db.select().from(enquiries).where(eq(enquiries.id, id)).get();
	if (!row) throw new NotFoundError('This enquiry');
	return row;
}

/** @throws FieldError, NotFoundError, ConflictError */
export function saveEnquiry(world: World, id: number, version: number, typed: unknown): void {
	must('work');
	const form = parseForm(enquiryForm, typed);
	writeAtOnce(world.db, (tx) => {
		const row = loadEnquiry(tx, id);
		if (row.version !== version)
			throw new ConflictError('This enquiry was changed in another tab. Load it again.');
		tx.update(enquiries)
			.set({
				...form,
				answers: form.answers.length ? form.answers : row.answers,
				version: version + 1
			})
			.where(eq(enquiries.id, id))
			.run();
	});
}

const LIVE: readonly Enquiry['state'][] = ['open', 'answered', 'visit'];

/** Moves it on, in the caller's transaction. */
export function moveEnquiry(
	tx: Transaction,
	world: World,
	id: number,
	set: Partial<Pick<Enquiry, 'state' | 'customerId' | 'jobId' | 'reason'>>
): void {
	tx.update(enquiries)
		.set({ ...set, movedAt: world.clock.now() })
		.where(eq(enquiries.id, id))
		.run();
}

/** It comes to nothing. @throws FieldError without a reason, RefusedError once it is quoted or a job */
export function closeEnquiry(world: World, id: number, typed: unknown): void {
	must('work');
	const { reason } = parseForm(
		z.object({ reason: required(500, 'Why does it come to nothing?') }),
		typed
	);
	writeAtOnce(world.db, (tx) => {
		const row = loadEnquiry(tx, id);
		if (row.state === 'closed') return;
		if (!LIVE.includes(row.state)) throw new RefusedError('It is quoted, or a job: close that.');
		moveEnquiry(tx, world, id, { state: 'closed', reason });
	});
}

/** Open again. */
export function reopenEnquiry(world: World, id: number): void {
	must('work');
	writeAtOnce(world.db, (tx) => {
		if (loadEnquiry(tx, id).state === 'closed')
			moveEnquiry(tx, world, id, { state: 'open', reason: '' });
	});
}

const answerForm = z.object({
	key: z.string().min(1).max(100),
	to: text(300),
	subject: required(300, 'A subject is needed.'),
	text: required(10_000, 'Write a line or two.')
});

/** Answers by e-mail. The same key again changes nothing. @throws FieldError */
export function answerEnquiry(world: World, id: number, typed: unknown): void {
	must('work');
	const form = parseForm(answerForm, typed);
	const to = readAddresses(form.to);
	writeAtOnce(world.db, (tx) => {
		const row = loadEnquiry(tx, id);
		const fresh = queueMail(tx, world, {
			key: `enquiry:${id}:${form.key}`,
			kind: 'enquiry',
			to,
			subject: form.subject,
			text: form.text.replaceAll('{link}', ''),
			link: null
		});
		if (fresh && row.state === 'open') moveEnquiry(tx, world, id, { state: 'answered' });
	});
}

/** It was answered on the phone. */
export function noteAnswered(world: World, id: number): void {
	must('work');
	writeAtOnce(world.db, (tx) => {
		if (loadEnquiry(tx, id).state === 'open') moveEnquiry(tx, world, id, { state: 'answered' });
	});
}

/** The customer it is from, made where it is none yet. In the caller's transaction. */
export function customerFor(tx: Transaction, world: World, row: Enquiry): number {
	if (row.customerId !== null) return row.customerId;
	const { email, phone, place: address } = row;
	const id = addNamed(tx, world, row.name, 'household', { email, phone, address });
	moveEnquiry(tx, world, row.id, { customerId: id });
	return id;
}

/** What was said, as a note on what comes of it. */
export const enquiryWords = ({ what, wanted, answers: given, note }: Enquiry): string =>
	[
		what,
		wanted ? `By when: ${wanted}` : '',
		...given.map(({ question, answer }) => `${question} ${answer}`),
		note
	]
		.filter(Boolean)
		.join('\n');

/** What it is called on a job or a quote: its first words. */
export const enquiryTitle = ({ what }: Pick<Enquiry, 'what'>): string => {
	const [first = ''] = what.trim().split(/[\n.;]/);
	return first.length > 60 ? `${first.slice(0, 57).trimEnd()}…` : first;
};

const visitForm = z.object({ day, from: timeOfDay });

/**
 * A job of it, with its photos: to be looked at on a day, or to be done. The same enquiry again gives the same job.
 * @throws FieldError, RefusedError once it is closed
 */
export function enquiryToJob(
	world: World,
	id: number,
	state: 'enquiry' | 'booked',
	typed: unknown
): number {
	must('work');
	const visit = parseForm(visitForm, typed);
	return writeAtOnce(world.db, (tx) => {
		const row = loadEnquiry(tx, id);
		if (row.state === 'closed') throw new RefusedError('It is closed. Open it again first.');
		if (row.jobId !== null) return row.jobId;
		const customerId = customerFor(tx, world, row);
		const { id: jobId } = beginOnce(
			tx,
			world,
			`enquiry:${id}`,
			parseForm(beginForm, {
				title: enquiryTitle(row),
				customerId,
				workKindId: row.workKindId,
				description: row.place ? `At ${row.place}` : '',
				privateNote: enquiryWords(row),
				...visit,
				price: ''
			}),
			state
		);
		copyFiles(tx, { to: 'enquiry', id }, { to: 'job', id: jobId }, world.clock.now());
		moveEnquiry(tx, world, id, { jobId, state: state === 'enquiry' ? 'visit' : 'job' });
		return jobId;
	});
}

/** What came to nothing is erased after a year, with its photos. @returns how many */
export function eraseOldEnquiries(world: World): number {
	const before = londonMoment(`${addMonths(world.clock.today(), -KEPT_MONTHS)}T00:00`);
	// What became something stays with that.
	const gone = world.db
		.select({ id: enquiries.id })
		.from(enquiries)
		.where(
			and(
				eq(enquiries.state, 'closed'),
				lt(enquiries.movedAt, before),
				sql`not exists (select 1 from quotes q where q.enquiry_id = ${enquiries.id})`
			)
		)
		.all()
		.map(({ id }) => id);
	if (gone.length === 0) return 0;
	writeAtOnce(world.db, (tx) => {
		tx.delete(files).where(inArray(files.enquiryId, gone)).run();
		tx.delete(enquiries).where(inArray(enquiries.id, gone)).run();
	});
	return gone.length;
}
