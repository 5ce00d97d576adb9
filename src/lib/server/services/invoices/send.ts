// Sending an issued document: by mail with its PDF, by link, on paper. Each way leaves its trace.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import {
	documentMessage,
	documentText,
	LINK_PLACEHOLDER,
	textParts,
	type Message
} from '../../../core/documents/wording';
import { MOST_TEXT_PARTS } from '../../../core/wordings/texts';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { documents, openItems } from '../../db/schema';
import { greetedOf, voiceFor } from '../wordings/voice';
import type { World } from '../../world';
import { renewLink } from '../business/links';
import { loadBusiness } from '../business/settings';
import { isMobile, plainNumber } from '../../../core/regimes/gb/checks';
import { mailAddresses, mobileOf } from '../customers/parts';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { frozenFigures } from '../../../core/documents/frozen';
import { filesToAttach } from '../files/files';
import { linkOf, queueMail, queueText } from '../messages/outbox';
import { hasStopped, STOPPED } from '../messages/stopped';
import { note } from '../trail/documents';

export interface SendForm {
	/** Names the press of the button. */
	key: string;
	to: string;
	/** Others who get it openly; may be empty. */
	cc?: string;
	subject: string;
	text: string;
	copyToSelf: boolean;
}

/** Checks one or more addresses, with commas between. @throws FieldError */
export function readAddresses(typed: string): string {
	const read = readOptional(typed, 'to');
	if (read === '') throw new FieldError({ to: 'Who should get it?' });
	return read;
}

/** Checks addresses of the box of this name, which may be empty. @throws FieldError */
export function readOptional(typed: string, box: 'to' | 'cc'): string {
	const addresses = typed.split(/[,;\s]+/).filter(Boolean);
	if (addresses.length > 10) throw new FieldError({ [box]: 'At most ten addresses.' });
	const wrong = addresses.find((address) => !z.email().safeParse(address).success);
	if (wrong) throw new FieldError({ [box]: `“${wrong.slice(0, 80)}” is no e-mail address.` });
	return addresses.join(', ');
}

/** What the send form begins with. */
export function prepareSending(
	world: World,
	documentId: number
): Message & {
	to: string;
	copyToSelf: boolean;
	ownAddress: string;
	mobile: string;
	words: string;
	textPrice: string;
} {
	const row = loadIssued(world.db, documentId);
	const owner = loadBusiness(world.db);
	const { payable } = frozenFigures(row.frozen);
	const left = leftOf(world.db, documentId, payable);
	const voice = voiceFor(world.db, greetedOf(row.frozen));
	const message = documentMessage(row.frozen, row.number, payable, left, voice);
	return {
		...message,
		to: mailAddresses(world.db, row.customerId, row.frozen.sheet)[0] ?? '',
		copyToSelf: owner.copyToSelf && owner.email !== '',
		ownAddress: owner.email,
		mobile: mobileOf(world.db, row.customerId),
		words: documentText(row.frozen, row.number, payable, left, voice),
		textPrice: owner.textPrice
	};
}

/** What of a document is still to pay; a credit note asks for nothing, and says what it comes to. */
function leftOf(db: Reader, documentId: number, payable: bigint): bigint {
	const item = db
		.select({ toPay: openItems.toPay })
		.from(openItems)
		.where(eq(openItems.documentId, documentId))
		.get();
	return item ? BigInt(item.toPay) : payable;
}

function loadIssued(db: Reader, documentId: number) {
	const row = db.select().from(documents).where(eq(documents.id, documentId)).get();
	if (!row) throw new NotFoundError('This document');
	if (row.state !== 'issued' || !row.frozen || !row.number || row.customerId === null || !row.token)
		throw new RefusedError('Only what is issued can be sent.');
	const { kind, frozen, number, customerId, token } = row;
	return { kind, frozen, number, customerId, token };
}

/** Queues the mail. The same key again changes nothing. @throws FieldError */
export function sendByMail(world: World, documentId: number, form: SendForm): void {
	must('bill');
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
	const cc = readOptional(form.cc ?? '', 'cc');
	const message = readMessage(form);
	const queued = queueIssued(tx, world, documentId, {
		key: `send:${documentId}:${form.key}`,
		to,
		cc,
		message,
		copyToSelf: form.copyToSelf,
		who: 'you'
	});
	if (!queued) throw new RefusedError('They wrote it themselves, so it is not sent to them.');
}

/** What the owner made of the message. @throws FieldError */
export function readMessage(form: Message): Message {
	const subject = form.subject.trim();
	if (subject === '') throw new FieldError({ subject: 'A subject is needed.' });
	if (subject.length > 300) throw new FieldError({ subject: 'At most 300 characters.' });
	if (form.text.trim() === '') throw new FieldError({ text: 'Write a line or two.' });
	if (form.text.length > 20_000) throw new FieldError({ text: 'At most 20,000 characters.' });
	return { subject, text: form.text };
}

interface IssuedMail {
	/** Names the cause: the same key again queues nothing. */
	key: string;
	/** Absent: the customer's own address for this document. */
	to?: string;
	cc?: string;
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
	const { payable } = frozenFigures(frozen);
	const message =
		given.message ??
		documentMessage(
			frozen,
			number,
			payable,
			leftOf(tx, documentId, payable),
			voiceFor(tx, greetedOf(frozen))
		);
	const fresh = queueMail(tx, world, {
		key,
		kind,
		documentId,
		to,
		cc: given.cc ?? '',
		bcc: (given.copyToSelf ?? owner.copyToSelf) ? owner.email : '',
		...message,
		link: linkOf(tx, world, documentId),
		attachPdf: true,
		fileIds: filesToAttach(tx, documentId).map(({ id }) => id)
	});
	const detail = [to, given.cc].filter(Boolean).join(', ');
	if (fresh) note(tx, { documentId, at: world.clock.now(), who, what: 'sent', detail });
	return true;
}

/**
 * Sends the link of an issued document by text. The same key again changes nothing.
 * @throws FieldError
 */
export function sendByText(
	world: World,
	documentId: number,
	form: { key: string; mobile: string; words: string }
): void {
	must('bill');
	const problems: Record<string, string> = {};
	const to = plainNumber(form.mobile);
	if (!isMobile(to)) problems.mobile = 'A mobile number, such as 07700 900123.';
	else if (hasStopped(world.db, to)) problems.mobile = `${STOPPED} on this number.`;
	if (!form.words.includes(LINK_PLACEHOLDER))
		problems.words = `Keep ${LINK_PLACEHOLDER}: it becomes the link.`;
	writeAtOnce(world.db, (tx) => {
		const { frozen } = loadIssued(tx, documentId);
		if (frozen.sheet.selfBilled)
			throw new RefusedError('They wrote it themselves, so it is not sent to them.');
		const text = form.words.trim().replaceAll(LINK_PLACEHOLDER, linkOf(tx, world, documentId));
		if (textParts(text) > MOST_TEXT_PARTS)
			problems.words = 'Too long for a text: send it by e-mail.';
		if (Object.keys(problems).length) throw new FieldError(problems);
		const key = `text:${documentId}:${form.key}`;
		if (queueText(tx, world, { key, documentId, to, text }))
			note(tx, { documentId, at: world.clock.now(), who: 'you', what: 'texted', detail: to });
	});
}

/** Another link opens the document from now on; whoever has an earlier one sees nothing any more. @throws NotFoundError */
export function renewDocumentLink(world: World, documentId: number): void {
	must('bill');
	const { token } = loadIssued(world.db, documentId);
	const at = world.clock.now();
	writeAtOnce(world.db, (tx) => {
		renewLink(tx, token, at);
		note(tx, { documentId, at, who: 'you', what: 'linkRenewed' });
	});
}

/** Notes that it went another way than by mail. */
export function noteHandedOver(
	world: World,
	documentId: number,
	how: 'linkCopied' | 'downloaded' | 'handedOver'
): void {
	must('bill');
	loadIssued(world.db, documentId);
	note(world.db, { documentId, at: world.clock.now(), who: 'you', what: how });
}
