// Sending an issued document: by mail with its PDF, by link, on paper. Each way leaves its trace.
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { documentMessage, type Message } from '../../../core/documents/wording';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { documents } from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { mailAddresses } from '../customers/parts';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { frozenFigures } from '../../../core/documents/frozen';
import { linkOf, queueMail } from '../messages/outbox';
import { note } from '../trail/documents';

export interface SendForm {
	/** Names the press of the button. */
	key: string;
	to: string;
	subject: string;
	text: string;
	copyToSelf: boolean;
}

/** Checks one or more addresses, with commas between. @throws FieldError */
export function readAddresses(typed: string): string {
	const addresses = typed.split(/[,;\s]+/).filter(Boolean);
	if (addresses.length === 0) throw new FieldError({ to: 'Who should get it?' });
	if (addresses.length > 10) throw new FieldError({ to: 'At most ten addresses.' });
	const wrong = addresses.find((address) => !z.email().safeParse(address).success);
	if (wrong) throw new FieldError({ to: `“${wrong.slice(0, 80)}” is no e-mail address.` });
	return addresses.join(', ');
}

/** What the send form begins with. */
export function prepareSending(
	world: World,
	documentId: number
): Message & { to: string; copyToSelf: boolean; ownAddress: string } {
	const row = loadIssued(world.db, documentId);
	const owner = loadBusiness(world.db);
	const message = documentMessage(row.frozen, row.number, frozenFigures(row.frozen).payable);
	return {
		...message,
		to: mailAddresses(world.db, row.customerId, row.frozen.sheet)[0] ?? '',
		copyToSelf: owner.copyToSelf && owner.email !== '',
		ownAddress: owner.email
	};
}

function loadIssued(db: Reader, documentId: number) {
	const row = db.select().from(documents).where(eq(documents.id, documentId)).get();
	if (!row) throw new NotFoundError('This document');
	if (row.state !== 'issued' || !row.frozen || !row.number || row.customerId === null)
		throw new RefusedError('Only what is issued can be sent.');
	return { kind: row.kind, frozen: row.frozen, number: row.number, customerId: row.customerId };
}

/** Queues the mail. The same key again changes nothing. @throws FieldError */
export function sendByMail(world: World, documentId: number, form: SendForm): void {
	writeAtOnce(world.db, (tx) => sendInTransaction(tx, world, documentId, form));
}

/** As `sendByMail`, in the caller's transaction. */
export function sendInTransaction(
	tx: Transaction,
	world: World,
	documentId: number,
	form: SendForm
): void {
	const to = readAddresses(form.to);
	const subject = form.subject.trim();
	if (subject === '') throw new FieldError({ subject: 'A subject is needed.' });
	if (subject.length > 300) throw new FieldError({ subject: 'At most 300 characters.' });
	if (form.text.trim() === '') throw new FieldError({ text: 'Write a line or two.' });
	if (form.text.length > 20_000) throw new FieldError({ text: 'At most 20,000 characters.' });
	const queued = queueIssued(tx, world, documentId, {
		key: `send:${documentId}:${form.key}`,
		to,
		message: { subject, text: form.text },
		copyToSelf: form.copyToSelf,
		who: 'you'
	});
	if (!queued) throw new RefusedError('They wrote it themselves, so it is not sent to them.');
}

interface IssuedMail {
	/** Names the cause: the same key again queues nothing. */
	key: string;
	/** Absent: the customer's own address for this document. */
	to?: string;
	/** Absent: the words a document goes out with. */
	message?: Message;
	/** Absent: as the settings say. */
	copyToSelf?: boolean;
	who: 'you' | 'axiometer';
}

/**
 * Queues an issued document's mail with its PDF and its link, and notes that it was sent, in the caller's transaction.
 * @returns whether there is an address to send it to
 */
export function queueIssued(
	tx: Transaction,
	world: World,
	documentId: number,
	{ key, who, ...given }: IssuedMail
): boolean {
	const { kind, frozen, number, customerId } = loadIssued(tx, documentId);
	// They wrote it: a second invoice for it may not go out (VAT Regulations 1995 reg. 13(3)).
	if (frozen.sheet.selfBilled) return false;
	const to = given.to ?? mailAddresses(tx, customerId, frozen.sheet)[0];
	if (!to) return false;
	const owner = loadBusiness(tx);
	const message = given.message ?? documentMessage(frozen, number, frozenFigures(frozen).payable);
	const fresh = queueMail(tx, world, {
		key,
		kind,
		documentId,
		to,
		bcc: (given.copyToSelf ?? owner.copyToSelf) ? owner.email : '',
		...message,
		link: linkOf(tx, world, documentId),
		attachPdf: true
	});
	if (fresh) note(tx, { documentId, at: world.clock.now(), who, what: 'sent', detail: to });
	return true;
}

/** Notes that it went another way than by mail. */
export function noteHandedOver(
	world: World,
	documentId: number,
	how: 'linkCopied' | 'downloaded' | 'handedOver'
): void {
	loadIssued(world.db, documentId);
	note(world.db, { documentId, at: world.clock.now(), who: 'you', what: how });
}
