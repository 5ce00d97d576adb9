// The outbox: messages are written in the transaction that causes them and go out after it, once each.
import { and, asc, eq, lte, or } from 'drizzle-orm';
import { fillMessage } from '../documents/mailBody';
import type { Database, Transaction } from '../db/connection';
import { documentFiles, documents, mails, rehearsals, statements } from '../db/schema';
import type { World } from '../world';
import { loadBusiness } from './business';
import { NotFoundError, RefusedError } from './errors';
import { newToken } from './keys';
import { note } from './trail';

export interface ToQueue {
	/** Names the cause: the same key again queues nothing. */
	key: string;
	kind: (typeof mails.$inferInsert)['kind'];
	documentId?: number;
	rehearsalId?: number;
	statementId?: number;
	to: string;
	bcc?: string;
	subject: string;
	text: string;
	link: string;
	banner?: string;
	attachPdf?: boolean;
}

/** @returns whether it is new */
export function queueMail(tx: Database | Transaction, world: World, mail: ToQueue): boolean {
	const { text, html } = fillMessage(mail.text, mail.link, mail.banner);
	const now = world.clock.now();
	const host = new URL(world.origin).hostname;
	const result = tx
		.insert(mails)
		.values({
			key: mail.key,
			kind: mail.kind,
			documentId: mail.documentId ?? null,
			rehearsalId: mail.rehearsalId ?? null,
			statementId: mail.statementId ?? null,
			to: mail.to,
			bcc: mail.bcc ?? '',
			// A line break in a subject could smuggle in a header.
			subject: mail.subject.replace(/[\r\n]+/g, ' '),
			text,
			html,
			attachPdf: mail.attachPdf ?? false,
			messageId: `<${newToken()}@${host}>`,
			state: 'queued',
			nextAttemptAt: now,
			createdAt: now
		})
		.onConflictDoNothing()
		.run();
	return result.changes > 0;
}

const RETRY_AFTER = [15, 60, 300, 900, 3600].map((seconds) => seconds * 1000);
let delivering: Promise<void> | null = null;

/** Sends what is due. Called again while it runs, it joins the run that goes on. */
export function deliverDue(world: World): Promise<void> {
	delivering ??= deliverAll(world).finally(() => (delivering = null));
	return delivering;
}

async function deliverAll(world: World): Promise<void> {
	for (;;) {
		const mail = world.db
			.select()
			.from(mails)
			.where(and(eq(mails.state, 'queued'), lte(mails.nextAttemptAt, world.clock.now())))
			.orderBy(asc(mails.id))
			.get();
		if (!mail) return;
		await deliverOne(world, mail);
	}
}

async function deliverOne(world: World, mail: typeof mails.$inferSelect): Promise<void> {
	// Marked before it goes: after a crash in the middle it is not sent a second time unasked.
	world.db
		.update(mails)
		.set({ state: 'sending', attempts: mail.attempts + 1 })
		.where(eq(mails.id, mail.id))
		.run();
	const owner = loadBusiness(world.db);
	const outcome = await world.mail.send({
		messageId: mail.messageId,
		from: {
			name: owner.tradingName || owner.ownerName,
			address: owner.email || 'no-reply@axiometer.example'
		},
		to: mail.to,
		bcc: mail.bcc,
		subject: mail.subject,
		text: mail.text,
		html: mail.html,
		attachments: attachmentOf(world, mail)
	});
	const now = world.clock.now();
	world.db.transaction((tx) => {
		const set = (values: Partial<typeof mails.$inferInsert>) =>
			tx.update(mails).set(values).where(eq(mails.id, mail.id)).run();
		switch (outcome.state) {
			case 'sent':
				set({ state: 'sent', sentAt: now, lastError: '' });
				if (mail.documentId)
					note(tx, {
						documentId: mail.documentId,
						at: now,
						who: 'axiometer',
						what: 'delivered',
						detail: `${mail.kind}:${mail.to}`
					});
				break;
			case 'later':
				set({
					state: 'queued',
					lastError: outcome.reason,
					nextAttemptAt: now + (RETRY_AFTER[Math.min(mail.attempts, RETRY_AFTER.length - 1)] ?? 0)
				});
				break;
			case 'refused':
			case 'unsure':
				set({
					state: outcome.state === 'refused' ? 'failed' : 'unsure',
					lastError: outcome.reason
				});
				if (mail.documentId)
					note(tx, {
						documentId: mail.documentId,
						at: now,
						who: 'axiometer',
						what: 'notDelivered',
						detail: `${mail.to}: ${outcome.reason}`
					});
		}
	});
}

function attachmentOf(world: World, mail: typeof mails.$inferSelect) {
	if (!mail.attachPdf) return [];
	const contentType = 'application/pdf';
	if (mail.rehearsalId) {
		const rehearsal = world.db
			.select({ pdf: rehearsals.pdf })
			.from(rehearsals)
			.where(eq(rehearsals.id, mail.rehearsalId))
			.get();
		return rehearsal ? [{ filename: 'Rehearsal.pdf', content: rehearsal.pdf, contentType }] : [];
	}
	if (mail.statementId) {
		const made = world.db
			.select({ pdf: statements.pdf })
			.from(statements)
			.where(eq(statements.id, mail.statementId))
			.get();
		return made?.pdf ? [{ filename: 'Statement.pdf', content: made.pdf, contentType }] : [];
	}
	const file = world.db
		.select()
		.from(documentFiles)
		.where(eq(documentFiles.documentId, mail.documentId ?? 0))
		.get();
	return file ? [{ filename: file.name, content: file.content, contentType }] : [];
}

/** After a restart: what was on its way when the process died may or may not have arrived. */
export function settleInterrupted(world: World): void {
	world.db
		.update(mails)
		.set({ state: 'unsure', lastError: 'Axiometer stopped while this was going out' })
		.where(eq(mails.state, 'sending'))
		.run();
}

/** Sends a message that failed, or of which it is not known whether it went, once more: the owner asked. */
export function sendAgain(world: World, mailId: number): void {
	const mail = world.db.select().from(mails).where(eq(mails.id, mailId)).get();
	if (!mail) throw new NotFoundError('This message');
	if (mail.state === 'sent' || mail.state === 'sending')
		throw new RefusedError('It has gone already.');
	world.db
		.update(mails)
		.set({ state: 'queued', nextAttemptAt: world.clock.now(), attempts: 0 })
		.where(
			and(
				eq(mails.id, mailId),
				or(eq(mails.state, 'failed'), eq(mails.state, 'unsure'), eq(mails.state, 'queued'))
			)
		)
		.run();
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
export function linkOf(world: World, documentId: number): string {
	const row = world.db
		.select({ token: documents.token })
		.from(documents)
		.where(eq(documents.id, documentId))
		.get();
	if (!row?.token) throw new NotFoundError('This document');
	return `${world.origin}/p/${row.token}`;
}
