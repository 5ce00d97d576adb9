// The owner's public page for enquiries: its link, its questions, and what a stranger sends through it.
import { must } from '../../actor';
import { asc, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { writeAtOnce, type Reader } from '../../db/connection';
import { enquiryPage, enquiryQuestions, QUESTION_KINDS } from '../../db/schema';
import type { World } from '../../world';
import { parseForm, required, text } from '../business/fields';
import { isToken, newToken } from '../business/keys';
import { loadBusiness } from '../business/settings';
import { workKindsInUse } from '../business/workKinds';
import { addFile } from '../files/files';
import { prepareFile } from '../files/prepare';
import { addEnquiry } from './enquiries';
import { tellOfEnquiry } from './moves';

export type Question = typeof enquiryQuestions.$inferSelect;

/** More are answered by nobody. */
const MOST_QUESTIONS = 40;
export const MOST_PHOTOS = 6;

export const questionsOf = (db: Reader): Question[] =>
	db.select().from(enquiryQuestions).orderBy(asc(enquiryQuestions.position)).all();

const questionForm = z.object({
	workKindId: z.number().int().positive().nullable().catch(null).default(null),
	question: required(300, 'What do you ask?'),
	kind: z.enum(QUESTION_KINDS).default('text'),
	unit: text(20),
	options: text(1000)
});

/** @throws FieldError */
export function addQuestion(world: World, typed: unknown): number {
	must('settings');
	const { options: given, ...form } = parseForm(questionForm, typed);
	const options = given
		.split(/[\n,]/)
		.map((one) => one.trim())
		.filter(Boolean);
	if (form.kind === 'choice' && options.length < 2)
		throw new FieldError({ options: 'Name at least two answers, with commas between.' });
	return writeAtOnce(world.db, (tx) => {
		const { n, last } = tx.get<{ n: number; last: number }>(
			sql`select count(*) as n, coalesce(max(position), 0) as last from enquiry_questions`
		);
		if (n >= MOST_QUESTIONS)
			throw new FieldError({ question: `At most ${MOST_QUESTIONS} questions.` });
		return tx
			.insert(enquiryQuestions)
			.values({ ...form, options: form.kind === 'choice' ? options : [], position: last + 1 })
			.returning({ id: enquiryQuestions.id })
			.get().id;
	});
}

/** What was answered before stays answered. */
export function removeQuestion(world: World, id: number): void {
	must('settings');
	world.db.delete(enquiryQuestions).where(eq(enquiryQuestions.id, id)).run();
}

/** The page as the owner set it; off until somebody puts it on. */
export function pageSettings(db: Reader) {
	return (
		db.select().from(enquiryPage).get() ?? { id: 1, token: '', on: false, intro: '', next: '' }
	);
}

const pageForm = z.object({ on: z.boolean().default(false), intro: text(1000), next: text(1000) });

/** @throws FieldError */
export function savePage(world: World, typed: unknown): void {
	must('settings');
	const form = parseForm(pageForm, typed);
	writeAtOnce(world.db, (tx) => {
		tx.insert(enquiryPage)
			.values({ id: 1, token: newToken(), ...form })
			.onConflictDoUpdate({ target: enquiryPage.id, set: form })
			.run();
	});
}

/** Another link from now on; the old one opens nothing. */
export function renewPage(world: World): void {
	must('settings');
	world.db.update(enquiryPage).set({ token: newToken() }).run();
}

/** What a stranger sees. @throws NotFoundError */
export function publicEnquiry(world: World, token: string) {
	const row = isToken(token)
		? world.db.select().from(enquiryPage).where(eq(enquiryPage.token, token)).get()
		: undefined;
	if (!row?.on) throw new NotFoundError('This page');
	const { tradingName, ownerName, phone, email } = loadBusiness(world.db);
	return {
		name: tradingName || ownerName,
		owner: ownerName,
		phone,
		email,
		intro: row.intro,
		next: row.next,
		kinds: workKindsInUse(world.db),
		questions: questionsOf(world.db).map(({ id, workKindId, question, kind, unit, options }) => ({
			id,
			workKindId,
			question,
			kind,
			unit,
			options
		}))
	};
}

/** So many from strangers a day: what comes beyond is no person's. */
const MOST_A_DAY = 200;
/** Nobody writes it in less. */
const QUICKEST_MS = 3_000;

const askForm = z.object({
	key: z.string().min(1).max(100),
	name: required(200, 'Your name?'),
	email: text(300),
	phone: text(50),
	place: text(1000),
	what: required(5000, 'What is it about?'),
	wanted: text(200),
	source: text(200),
	workKindId: z.number().int().nonnegative().catch(0),
	/** Nobody sees this box, so nobody fills it in. */
	website: z.string().max(500).default(''),
	/** When the page was opened. */
	opened: z.coerce.number().catch(0)
});

/**
 * Takes what a stranger sends. A robot's is swallowed without a word. The same key again changes nothing.
 * @returns the enquiry; null where it was a robot's
 * @throws FieldError; RefusedError where too many come
 */
export async function askByPage(
	world: World,
	token: string,
	typed: Record<string, unknown>,
	answers: readonly { id: number; answer: string }[],
	photos: readonly { name: string; bytes: Buffer }[]
): Promise<number | null> {
	const page = publicEnquiry(world, token);
	const form = parseForm(askForm, typed);
	if (form.website !== '') return null;
	const now = world.clock.now();
	if (form.opened > 0 && now - form.opened < QUICKEST_MS && now >= form.opened) return null;
	if (form.email.trim() === '' && form.phone.trim() === '')
		throw new FieldError({ email: 'An e-mail address or a phone number, so that we can answer.' });
	if (photos.length > MOST_PHOTOS)
		throw new FieldError({ photo: `At most ${MOST_PHOTOS} photos.` });
	const { n } = world.db.get<{ n: number }>(
		sql`select count(*) as n from enquiries where came = 'page' and created_at > ${now - 86_400_000}`
	);
	if (n >= MOST_A_DAY)
		throw new RefusedError('Too many have asked today. Please call, or try again tomorrow.');
	const given = answers.flatMap(({ id, answer }) => {
		const question = page.questions.find((one) => one.id === id);
		return question && answer.trim()
			? [
					{
						question: question.question,
						answer: `${answer.trim()}${question.unit ? ` ${question.unit}` : ''}`
					}
				]
			: [];
	});
	const { website: _box, opened: _moment, key, workKindId, ...said } = form;
	const id = addEnquiry(
		world,
		`page:${key}`,
		{ ...said, workKindId: workKindId || null, answers: given },
		'page'
	);
	for (const { name, bytes } of photos) {
		// Of a stranger pictures alone are taken, each drawn anew; what is none is left out: the words count.
		const prepared = await prepareFile(bytes).catch(() => null);
		if (prepared?.type !== 'image/jpeg') continue;
		await addFile(world, { to: 'enquiry', id }, name, bytes);
	}
	writeAtOnce(world.db, (tx) => tellOfEnquiry(tx, world, id));
	return id;
}
