// Sending an issued document: by mail with its PDF, by link, on paper. Each way leaves its trace.
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { documentMessage, type Message } from '../../../core/documents/wording';
import { writeAtOnce } from '../../db/connection';
import { documents } from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { mailAddresses } from '../customers/parts';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { frozenFigures } from './freeze';
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
	if (wrong) throw new FieldError({ to: `“${wrong.slice(0, 80)}” is no mail address.` });
	return addresses.join(', ');
}

/** What the send form begins with. */
export function prepareSending(
	world: World,
	documentId: number
): Message & { to: string; copyToSelf: boolean; ownAddress: string } {
	const row = loadIssued(world, documentId);
	const owner = loadBusiness(world.db);
	const message = documentMessage(row.frozen, row.number, frozenFigures(row.frozen).payable);
	return {
		...message,
		to: mailAddresses(world.db, row.customerId, row.frozen.sheet)[0] ?? '',
		copyToSelf: owner.copyToSelf && owner.email !== '',
		ownAddress: owner.email
	};
}

function loadIssued(world: World, documentId: number) {
	const row = world.db.select().from(documents).where(eq(documents.id, documentId)).get();
	if (!row) throw new NotFoundError('This document');
	if (row.state !== 'issued' || !row.frozen || !row.number || row.customerId === null)
		throw new RefusedError('Only what is issued can be sent.');
	return { kind: row.kind, frozen: row.frozen, number: row.number, customerId: row.customerId };
}

/** Queues the mail. The same key again changes nothing. @throws FieldError */
export function sendByMail(world: World, documentId: number, form: SendForm): void {
	const row = loadIssued(world, documentId);
	const to = readAddresses(form.to);
	const subject = form.subject.trim();
	if (subject === '') throw new FieldError({ subject: 'A subject is needed.' });
	if (subject.length > 300) throw new FieldError({ subject: 'At most 300 characters.' });
	if (form.text.trim() === '') throw new FieldError({ text: 'Write a line or two.' });
	if (form.text.length > 20_000) throw new FieldError({ text: 'At most 20,000 characters.' });
	const ownAddress = loadBusiness(world.db).email;
	writeAtOnce(world.db, (tx) => {
		const fresh = queueMail(tx, world, {
			key: `send:${documentId}:${form.key}`,
			kind: row.kind,
			documentId,
			to,
			bcc: form.copyToSelf ? ownAddress : '',
			subject,
			text: form.text,
			link: linkOf(world, documentId),
			attachPdf: true
		});
		if (fresh)
			note(tx, { documentId, at: world.clock.now(), who: 'you', what: 'sent', detail: to });
	});
}

/** Notes that it went another way than by mail. */
export function noteHandedOver(
	world: World,
	documentId: number,
	how: 'linkCopied' | 'downloaded' | 'handedOver'
): void {
	loadIssued(world, documentId);
	note(world.db, { documentId, at: world.clock.now(), who: 'you', what: how });
}
