// Chasing: which messages are due, read before they go, changed, left out, sent now; and sent by the clockwork, once.
import { refuseBreathing } from '../ledger/breathing';
import { must } from '../../actor';
import { and, eq } from 'drizzle-orm';
import type { PlainDate } from '../../../core/calendar/types';
import { messageNow } from '../../../core/chasing/decide';
import type { Channel, DueMessage } from '../../../core/chasing/types';
import { MERGE_FIELDS, type ChaseFacts } from '../../../core/chasing/wording';
import { fieldProblem } from '../../../core/wordings/fill';
import { writeAtOnce, type Transaction, type Reader } from '../../db/connection';
import { chaseDone, chaseMessages, chaseWordings } from '../../db/schema';
import type { World } from '../../world';
import { chasePayers } from './facts';
import { chaseContext, factsOf, wordingKey, type ChaseContext } from './context';
import { linkOfReminder } from './messages';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { newToken } from '../business/keys';
import { queueMail, queueText } from '../messages/outbox';
import { note, noteAll } from '../trail/documents';
import {
	type Why,
	type Composed,
	type Found,
	nextWorkingDay,
	markOf,
	stillToday,
	decide,
	compose,
	onPaper
} from './compose';

/** The message to a payer that comes next: waiting for a decision, due today or tomorrow, or one the owner wants now. */
function findMessage(world: World, db: Reader, payerId: number, wanted?: Why): Found | null {
	const payer = chasePayers(db, [payerId])[0];
	if (!payer) return null;
	const today = world.clock.today();
	const choices: [Why, PlainDate, () => DueMessage | null | undefined][] = [
		['decide', today, () => decide(world, [payer], today).toDecide[0]],
		[
			'planned',
			today,
			() => (stillToday(world) ? decide(world, [payer], today).messages[0] : null)
		],
		[
			'planned',
			nextWorkingDay(today),
			() => decide(world, [payer], nextWorkingDay(today)).messages[0]
		],
		['now', today, () => messageNow(payer, today)]
	];
	for (const [why, day, look] of choices) {
		if (wanted && why !== wanted) continue;
		const message = look();
		if (message) return { payer, message, day, why };
	}
	return null;
}

/** A payer's message as it would go. @throws NotFoundError where there is nothing to write about */
export function messageFor(world: World, payerId: number, wanted?: Why): Composed {
	const found = findMessage(world, world.db, payerId, wanted);
	if (!found)
		throw new NotFoundError('A reminder to this payer (nothing sent is open, or it has no plan)');
	return compose(world.origin, chaseContext(world.db, [found.payer], found.day), found);
}

/** What a message's fields are filled with, so that it can be read while its words are changed. */
export function chasePreviewFacts(
	world: World,
	{ payerId, items, day, channel }: Composed
): ChaseFacts {
	const payer = chasePayers(world.db, [payerId])[0];
	if (!payer) throw new NotFoundError('This payer');
	const context = chaseContext(world.db, [payer], day);
	const ids = items.map((item) => item.documentId);
	return onPaper(factsOf(world.origin, context, payer, ids, day, ''), channel);
}

function foundAgain(world: World, tx: Transaction, payerId: number, why: Why, mark: string): Found {
	const found = findMessage(world, tx, payerId, why);
	if (!found || markOf(found.message) !== mark)
		throw new ConflictError(
			'What it asks for has changed in the meantime. Read it again before it goes.'
		);
	return found;
}

function readWords(form: { subject: string; text: string; channel: Channel }) {
	const problems: Record<string, string> = {};
	const subject = form.subject.trim();
	const text = form.text.replaceAll('\r\n', '\n').trim();
	if (subject === '' && form.channel !== 'text') problems.subject = 'A subject is needed.';
	if (subject.length > 200) problems.subject = 'At most 200 characters.';
	if (text === '') problems.text = 'Write what it says.';
	if (text.length > 10_000) problems.text = 'At most 10,000 characters.';
	const wrong = {
		subject: fieldProblem(subject, MERGE_FIELDS),
		text: fieldProblem(text, MERGE_FIELDS)
	};
	if (wrong.subject) problems.subject = wrong.subject;
	if (wrong.text) problems.text = wrong.text;
	if (Object.keys(problems).length) throw new FieldError(problems);
	return { subject, text, channel: form.channel };
}

/** Changes the words of the next message to a payer; the plan stays as it is. @throws FieldError, ConflictError */
export function saveWording(
	world: World,
	payerId: number,
	form: { why: Why; mark: string; subject: string; text: string; channel: Channel }
): void {
	must('bill');
	const { subject, text } = readWords(form);
	writeAtOnce(world.db, (tx) => {
		const { message } = foundAgain(world, tx, payerId, form.why, form.mark);
		const same = subject === message.step.subject && text === message.step.text;
		tx.delete(chaseWordings)
			.where(and(eq(chaseWordings.payerId, payerId), eq(chaseWordings.stepId, message.step.id)))
			.run();
		if (!same)
			tx.insert(chaseWordings).values({ payerId, stepId: message.step.id, subject, text }).run();
	});
}

/**
 * Sends a message now, whatever the hour: a person pressed the button. The same key again sends nothing.
 * @throws FieldError, ConflictError where what it asks for has changed, RefusedError where it reaches nobody
 */
export function sendNow(
	world: World,
	payerId: number,
	form: { why: Why; mark: string; subject: string; text: string; channel: Channel; key: string }
): number {
	must('bill');
	const words = readWords(form);
	return writeAtOnce(world.db, (tx) => {
		const key = `chase:press:${form.key}`;
		const same = tx
			.select({ id: chaseMessages.id })
			.from(chaseMessages)
			.where(eq(chaseMessages.key, key))
			.get();
		if (same) return same.id;
		refuseBreathing(tx, payerId, world.clock.today());
		const found = foundAgain(world, tx, payerId, form.why, form.mark);
		const day = world.clock.today();
		const context = chaseContext(tx, [found.payer], day);
		return send(world, tx, context, { ...found, day }, 'you', key, words);
	});
}

/** Leaves a message out: its steps count as dealt with. @throws ConflictError */
export function skipMessage(world: World, payerId: number, form: { why: Why; mark: string }): void {
	must('bill');
	writeAtOnce(world.db, (tx) => {
		const { message } = foundAgain(world, tx, payerId, form.why, form.mark);
		const at = world.clock.now();
		for (const { documentId, stepId, offset } of message.covers)
			tx.insert(chaseDone)
				.values({ documentId, stepId, offset, how: 'skipped', at })
				.onConflictDoNothing()
				.run();
		for (const documentId of new Set(message.covers.map((one) => one.documentId)))
			note(tx, { documentId, at, who: 'you', what: 'reminderSkipped' });
	});
}

/** Writes a message, what it deals with, and its way out, in one transaction. */
export function send(
	world: World,
	tx: Transaction,
	context: ChaseContext,
	found: Found,
	who: 'you' | 'axiometer',
	key: string,
	words?: { subject: string; text: string; channel: Channel }
): number {
	const { payer, message, day } = found;
	const token = newToken();
	const made = compose(world.origin, context, found, token, words);
	if (made.to === '')
		throw new RefusedError(
			'There is neither an e-mail address nor a postal address to send it to.'
		);
	const at = world.clock.now();
	const { channel, to, subject, text, amount, step } = made;
	const { id } = tx
		.insert(chaseMessages)
		.values({
			key,
			payerId: payer.payerId,
			planId: made.planId,
			stepId: step.id,
			tone: step.tone,
			channel,
			day,
			who,
			to,
			subject,
			text,
			amount: Number(amount),
			items: message.items.map(({ documentId, toPay }) => ({ documentId, toPay: Number(toPay) })),
			token,
			state: channel === 'letter' ? 'toPost' : 'out',
			createdAt: at
		})
		.returning({ id: chaseMessages.id })
		.get();
	tx.insert(chaseDone)
		.values(
			message.covers.map(({ documentId, stepId, offset, reached }) => ({
				documentId,
				stepId,
				offset,
				how: reached ? ('sent' as const) : ('overtaken' as const),
				messageId: id,
				at
			}))
		)
		.onConflictDoNothing()
		.run();
	if (channel === 'mail')
		queueMail(tx, world, {
			key: `chase:${id}`,
			kind: 'reminder',
			chaseMessageId: id,
			to,
			subject,
			text,
			link: linkOfReminder(tx, world, { items: made.items, token }),
			attachPdf: true
		});
	if (channel === 'text')
		queueText(tx, world, { key: `chase:${id}`, chaseMessageId: id, to, text });
	noteAll(
		tx,
		message.items.map(({ documentId }) => documentId),
		{ at, who, what: 'reminded', detail: wayInWords(channel, to) }
	);
	if (context.wordings.has(wordingKey(payer.payerId, step.id)))
		tx.delete(chaseWordings)
			.where(and(eq(chaseWordings.payerId, payer.payerId), eq(chaseWordings.stepId, step.id)))
			.run();
	return id;
}

const wayInWords = (channel: Channel, to: string) =>
	channel === 'letter'
		? `by letter to ${to.split('\n')[0]}`
		: `by ${channel === 'mail' ? 'e-mail' : 'text'} to ${to}`;
