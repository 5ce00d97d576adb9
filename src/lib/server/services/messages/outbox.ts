// The outbox: messages are written in the transaction that causes them; delivering them comes after it.
import { and, asc, eq, ne, or, sql } from 'drizzle-orm';
import { fillMessage } from '../../documents/mailBody';
import type { Reader } from '../../db/connection';
import { documents, mails, texts } from '../../db/schema';
import type { World } from '../../world';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { linkToday } from '../business/links';
import { newToken } from '../business/keys';
import { hasStopped, STOPPED } from './stopped';

export interface ToQueue {
	/** Names the cause: the same key again queues nothing. */
	key: string;
	kind: (typeof mails.$inferInsert)['kind'];
	documentId?: number;
	trialId?: number;
	statementId?: number;
	chaseMessageId?: number;
	quoteId?: number;
	quoteTrialId?: number;
	toldId?: number;
	sheetId?: number;
	to: string;
	cc?: string;
	bcc?: string;
	subject: string;
	text: string;
	/** Null: the text holds its links already. */
	link: string | null;
	banner?: string;
	attachPdf?: boolean;
	/** Files of the document that go along. */
	fileIds?: number[];
}

/** What the button in a mail says. */
const BUTTONS: Record<ToQueue['kind'], string> = {
	invoice: 'See the invoice and pay',
	creditNote: 'See the credit note',
	trial: 'See the test',
	receipt: 'See the invoice',
	paidNotice: 'See the invoice',
	statement: 'See the statement and pay',
	reminder: 'See it and pay',
	notice: 'Look at the settings',
	quote: 'See it and answer',
	quoteNews: 'See the quote',
	enquiry: 'Look',
	enquiryNews: 'See the enquiry',
	visit: 'See it and answer',
	deposit: 'Pay the deposit',
	jobSheet: 'See the job sheet',
	signed: 'See it',
	textReply: 'Read it'
};

/** The colour of the letterhead a document was written on. */
function accentOf(tx: Reader, documentId: number | undefined): string | undefined {
	if (documentId === undefined) return undefined;
	return (
		tx
			.select({ accent: sql<string | null>`json_extract(${documents.frozen}, '$.look.accent')` })
			.from(documents)
			.where(eq(documents.id, documentId))
			.get()?.accent ?? undefined
	);
}

/** @returns whether it is new */
export function queueMail(tx: Reader, world: World, mail: ToQueue): boolean {
	const { text, html } = fillMessage(
		mail.text,
		mail.link,
		mail.banner,
		world.origin,
		BUTTONS[mail.kind],
		accentOf(tx, mail.documentId)
	);
	const now = world.clock.now();
	const host = new URL(world.origin).hostname;
	const result = tx
		.insert(mails)
		.values({
			key: mail.key,
			kind: mail.kind,
			documentId: mail.documentId ?? null,
			trialId: mail.trialId ?? null,
			statementId: mail.statementId ?? null,
			chaseMessageId: mail.chaseMessageId ?? null,
			quoteId: mail.quoteId ?? null,
			quoteTrialId: mail.quoteTrialId ?? null,
			toldId: mail.toldId ?? null,
			sheetId: mail.sheetId ?? null,
			to: mail.to,
			cc: mail.cc ?? '',
			bcc: mail.bcc ?? '',
			// A line break in a subject could smuggle in a header.
			subject: mail.subject.replace(/[\r\n]+/g, ' '),
			text,
			html,
			attachPdf: mail.attachPdf ?? false,
			fileIds: mail.fileIds ?? [],
			messageId: `<${newToken()}@${host}>`,
			state: 'queued',
			nextAttemptAt: now,
			createdAt: now
		})
		.onConflictDoNothing()
		.run();
	return result.changes > 0;
}

export interface TextToQueue {
	/** Names the cause: the same key again queues nothing. */
	key: string;
	chaseMessageId?: number;
	documentId?: number;
	toldId?: number;
	to: string;
	text: string;
}

/** @returns whether it is new */
export function queueText(tx: Reader, world: World, text: TextToQueue): boolean {
	const now = world.clock.now();
	// Who presses is told before; what goes by itself is kept as what did not go, and becomes a next move.
	const gone = hasStopped(tx, text.to)
		? ({ state: 'failed', lastError: STOPPED } as const)
		: ({ state: 'queued' } as const);
	const result = tx
		.insert(texts)
		.values({ ...text, ...gone, nextAttemptAt: now, createdAt: now })
		.onConflictDoNothing()
		.run();
	return result.changes > 0;
}

/** Sends a message that failed, or of which it is not known whether it went, once more: the owner asked. */
export function sendAgain(world: World, mailId: number): void {
	const mail = world.db.select().from(mails).where(eq(mails.id, mailId)).get();
	if (!mail) throw new NotFoundError('This message');
	if ((mail.state === 'sent' && !mail.missed) || mail.state === 'sending')
		throw new RefusedError('It has gone already.');
	world.db
		.update(mails)
		.set({ state: 'queued', nextAttemptAt: world.clock.now(), attempts: 0 })
		.where(
			and(
				eq(mails.id, mailId),
				or(
					eq(mails.state, 'failed'),
					eq(mails.state, 'unsure'),
					eq(mails.state, 'queued'),
					and(eq(mails.state, 'sent'), ne(mails.missed, ''))
				)
			)
		)
		.run();
}

/** A row of the list of messages: e-mails have even numbers, texts odd ones. */
export const messageOf = (id: number): { mail: number } | { text: number } =>
	id % 2 === 0 ? { mail: id / 2 } : { text: (id - 1) / 2 };

/** Why a message cannot be sent once more; null where it can. */
export function notAgain(db: Reader, message: ReturnType<typeof messageOf>): string | null {
	if ('mail' in message) {
		const mail = db.select().from(mails).where(eq(mails.id, message.mail)).get();
		if (!mail) return 'It is not there any more.';
		if (mail.state === 'withdrawn') return 'It was taken back.';
		if (mail.state === 'queued' || mail.state === 'sending') return 'It is on its way.';
		return mail.state === 'sent' && !mail.missed ? 'It has gone already.' : null;
	}
	const text = db.select().from(texts).where(eq(texts.id, message.text)).get();
	if (!text) return 'It is not there any more.';
	if (text.state === 'queued') return 'It is on its way.';
	return text.state === 'failed'
		? null
		: text.state === 'sent'
			? 'It has gone already.'
			: 'It was taken back.';
}

/** Sends a message once more, whichever it is. @throws NotFoundError, RefusedError */
export function messageAgain(world: World, message: ReturnType<typeof messageOf>): void {
	if ('mail' in message) return sendAgain(world, message.mail);
	world.db
		.update(texts)
		.set({ state: 'queued', nextAttemptAt: world.clock.now(), attempts: 0 })
		.where(and(eq(texts.id, message.text), eq(texts.state, 'failed')))
		.run();
}

/** Sends a text message that was refused once more: the owner asked. */
export function sendTextAgain(world: World, chaseMessageId: number): void {
	world.db
		.update(texts)
		.set({ state: 'queued', nextAttemptAt: world.clock.now(), attempts: 0 })
		.where(and(eq(texts.chaseMessageId, chaseMessageId), eq(texts.state, 'failed')))
		.run();
}

/** Sends a text about a document that was refused once more: the owner asked. */
export function sendDocumentTextAgain(world: World, documentId: number, textId: number): void {
	world.db
		.update(texts)
		.set({ state: 'queued', nextAttemptAt: world.clock.now(), attempts: 0 })
		.where(and(eq(texts.id, textId), eq(texts.documentId, documentId), eq(texts.state, 'failed')))
		.run();
}

/** Texts about a document that have not gone out, or were refused. */
export function textsOf(world: World, documentId: number) {
	return world.db
		.select({
			id: texts.id,
			to: texts.to,
			state: texts.state,
			attempts: texts.attempts,
			lastError: texts.lastError
		})
		.from(texts)
		.where(and(eq(texts.documentId, documentId), ne(texts.state, 'sent')))
		.orderBy(asc(texts.id))
		.all();
}

/** The owner looked and says that it did arrive. */
export function markArrived(world: World, mailId: number): void {
	world.db
		.update(mails)
		.set({ state: 'sent', sentAt: world.clock.now(), lastError: '' })
		.where(and(eq(mails.id, mailId), eq(mails.state, 'unsure')))
		.run();
}

export function mailsOf(world: World, documentId: number) {
	return world.db
		.select({
			id: mails.id,
			kind: mails.kind,
			to: mails.to,
			subject: mails.subject,
			state: mails.state,
			lastError: mails.lastError,
			nextAttemptAt: mails.nextAttemptAt,
			missed: mails.missed,
			attempts: mails.attempts,
			sentAt: mails.sentAt,
			createdAt: mails.createdAt
		})
		.from(mails)
		.where(eq(mails.documentId, documentId))
		.orderBy(asc(mails.id))
		.all();
}

/** Used where a document's token is needed for its link. */
export function linkOf(db: Reader, world: World, documentId: number): string {
	const row = db
		.select({ token: documents.token })
		.from(documents)
		.where(eq(documents.id, documentId))
		.get();
	if (!row?.token) throw new NotFoundError('This document');
	return `${world.origin}/p/${linkToday(db, row.token)}`;
}
