// The owner's own words for each kind of message. Only what was changed is kept; the standard words can always be had back.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { LINK_PLACEHOLDER, fieldProblem, type Words } from '../../../core/wordings/fill';
import { WORDINGS, WORDING_KINDS, wordsOf, type WordingKind } from '../../../core/wordings/kinds';
import { ConflictError, FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Reader } from '../../db/connection';
import { wordings } from '../../db/schema';
import type { World } from '../../world';
import { voiceFor } from './voice';

const SUBJECT = 300;
const TEXT = 20_000;

/** @throws NotFoundError */
export function readKind(name: string): WordingKind {
	const kind = z.enum(WORDING_KINDS).safeParse(name);
	if (!kind.success) throw new NotFoundError('This message');
	return kind.data;
}

export interface Wording extends Words {
	kind: WordingKind;
	/** 0 as long as they are the standard words. */
	version: number;
}

export function loadWording(db: Reader, kind: WordingKind): Wording {
	const own = db.select().from(wordings).where(eq(wordings.kind, kind)).get();
	return own
		? { kind, subject: own.subject, text: own.text, version: own.version }
		: { kind, ...WORDINGS[kind].standard, version: 0 };
}

/** Each kind of message with how it begins, and whether its words are the owner's own. */
export function listWordings(db: Reader) {
	const voice = voiceFor(db, null);
	return WORDING_KINDS.map((kind) => ({
		kind,
		title: WORDINGS[kind].title,
		when: WORDINGS[kind].when,
		own: voice.words[kind] !== undefined,
		words: wordsOf(voice, kind)
	}));
}

/** What is wrong with words, each at its box; nothing where they can go out. */
export function wordingProblems(kind: WordingKind, words: Words): Record<string, string> {
	const { fields, standard } = WORDINGS[kind];
	const problems: Record<string, string> = {};
	const mail = standard.subject !== '';
	for (const [box, most] of [
		['subject', SUBJECT],
		['text', TEXT]
	] as const) {
		const typed = words[box];
		if (box === 'subject' && !mail) continue;
		const wrong = fieldProblem(typed, fields);
		if (typed.trim() === '')
			problems[box] = box === 'subject' ? 'A subject is needed.' : 'Write what it says.';
		else if (typed.length > most)
			problems[box] = `At most ${most.toLocaleString('en-GB')} characters.`;
		else if (wrong) problems[box] = wrong;
	}
	if (words.subject.includes(LINK_PLACEHOLDER))
		problems.subject = `${LINK_PLACEHOLDER} belongs into the words: nobody can press a subject.`;
	if (!mail && !problems.text && !words.text.includes(LINK_PLACEHOLDER))
		problems.text = `Keep ${LINK_PLACEHOLDER}: it becomes the link.`;
	return problems;
}

/**
 * Keeps the owner's words. Those that say what the standard says are not kept: they follow it.
 * @throws FieldError; ConflictError where another tab was first
 */
export function saveWording(world: World, kind: WordingKind, version: number, given: Words): void {
	must('settings');
	const words = {
		subject: given.subject.trim(),
		text: given.text.replaceAll('\r\n', '\n').trim()
	};
	const problems = wordingProblems(kind, words);
	if (Object.keys(problems).length) throw new FieldError(problems);
	const { standard } = WORDINGS[kind];
	writeAtOnce(world.db, (tx) => {
		if (loadWording(tx, kind).version !== version) throw new ConflictError();
		if (words.text === standard.text && words.subject === standard.subject) {
			tx.delete(wordings).where(eq(wordings.kind, kind)).run();
			return;
		}
		const values = { ...words, version: version + 1, updatedAt: world.clock.now() };
		tx.insert(wordings)
			.values({ kind, ...values })
			.onConflictDoUpdate({ target: wordings.kind, set: values })
			.run();
	});
}

/** The standard words again. */
export function restoreWording(world: World, kind: WordingKind): void {
	must('settings');
	world.db.delete(wordings).where(eq(wordings.kind, kind)).run();
}
