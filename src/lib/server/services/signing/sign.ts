// Signatures: on a job sheet that what it says was done, on an invoice that it was received or its work accepted. Each stands
// beside what was signed, with the hash of it, and never changes it.
import { and, asc, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { frozenView } from '../../../core/documents/view';
import { jobSheetView, signedWords } from '../../../core/jobs/jobSheetView';
import { SIGNED_WORDS } from '../../../core/jobs/signed';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { must } from '../../actor';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { documentFiles, documents, jobSheets, signatures } from '../../db/schema';
import type { World } from '../../world';
import { parseForm, text } from '../business/fields';
import { sha256 } from '../business/keys';
import { mustNotRest } from '../business/resting';
import { loadBusiness } from '../business/settings';
import { readDrawn } from '../files/drawn';
import { drawDocument } from '../letterheads/dress';
import { queueMail } from '../messages/outbox';
import { note } from '../trail/documents';
import { noteJob } from '../trail/jobs';
import { asShown, loadSheet, signatureOf, type Signature } from './sheets';
import { drawSheet } from './sheetPaper';

export const signForm = z.object({
	key: z.string().min(1).max(100),
	name: text(200),
	position: text(200),
	/** A data address of a PNG; empty: the name stands for it. */
	signature: z.string().max(8_000_000).default(''),
	what: z.enum(['received', 'accepted', 'done']).catch('done'),
	/** Of what lay before whoever signs. */
	of: z.string().max(64)
});

/** How it comes, and from where as far as that is known. */
export interface Signing {
	way: Signature['way'];
	from: { address: string; agent: string };
}

/** A form as it was signed, checked. @throws FieldError */
function readSigned(typed: unknown) {
	const form = parseForm(signForm, typed);
	const problems: Record<string, string> = {};
	if (form.name === '') problems.name = 'Who signs?';
	const drawn = readDrawn(form.signature, problems);
	if (Object.keys(problems).length) throw new FieldError(problems);
	return { form, drawn };
}

/** Where nothing has been signed yet, or with the same key; who is second is told so. @returns whether it is new */
function isFirst(before: Signature | undefined, key: string): boolean {
	if (before?.key === key) return false;
	if (before) throw new RefusedError(`It is signed already, by ${before.name}.`);
	return true;
}

/**
 * Signs a finished job sheet. The same key again changes nothing.
 * @throws FieldError; RefusedError once it is signed; ConflictError where another sheet lay before them
 */
export function signSheet(
	world: World,
	sheetId: number,
	typed: unknown,
	{ way, from }: Signing
): void {
	mustNotRest(world.db);
	const { form, drawn } = readSigned(typed);
	const key = `sheet:${sheetId}:${form.key}`;
	writeAtOnce(world.db, (tx) => {
		const sheet =
			way === 'phone'
				? loadSheet(tx, sheetId)
				: tx.select().from(jobSheets).where(eq(jobSheets.id, sheetId)).get();
		if (sheet?.state !== 'finished') throw new NotFoundError('This job sheet');
		if (!isFirst(signatureOf(tx, sheetId), key)) return;
		if (form.of !== sheet.sha256) throw new ConflictError(CHANGED);
		const at = world.clock.now();
		tx.insert(signatures)
			.values({
				key,
				sheetId,
				what: 'done',
				name: form.name,
				position: form.position,
				drawn,
				way,
				at,
				...from,
				ofSha256: sheet.sha256
			})
			.run();
		noteJob(tx, sheet.jobId, at, 'sheetSigned', `${sheet.number}, ${form.name}`);
		if (way === 'page')
			tellOwner(tx, world, `signed:sheet:${sheetId}`, `/work/sheets/${sheetId}`, {
				subject: `Signed: job sheet ${sheet.number}`,
				text: `${form.name} signed job sheet ${sheet.number}: ${sheet.frozen!.job.title}.\n\nSee it here: {link}`
			});
	});
}

const CHANGED = 'This is not what you had before you. Load the page again.';

export const documentSignature = (db: Reader, documentId: number): Signature | undefined =>
	db.select().from(signatures).where(eq(signatures.documentId, documentId)).get();

/** The hash of an invoice's PDF: what is signed for. Null where it was not issued. */
export const signedHash = (db: Reader, documentId: number): string | null =>
	db
		.select({ sha256: documentFiles.sha256 })
		.from(documentFiles)
		.where(eq(documentFiles.documentId, documentId))
		.get()?.sha256 ?? null;

/**
 * Signs that an invoice was received, or that its work is accepted. The same key again changes nothing.
 * @throws FieldError; RefusedError once it is signed, or for what is no invoice
 */
export function signDocument(
	world: World,
	documentId: number,
	typed: unknown,
	{ way, from }: Signing
): void {
	if (way === 'phone') must('bill');
	mustNotRest(world.db);
	const { form, drawn } = readSigned(typed);
	const key = `document:${documentId}:${form.key}`;
	writeAtOnce(world.db, (tx) => {
		const document = tx.select().from(documents).where(eq(documents.id, documentId)).get();
		const hash = signedHash(tx, documentId);
		if (document?.state !== 'issued' || !hash) throw new NotFoundError('This document');
		if (!maySign(document)) throw new RefusedError('Only an invoice is signed for.');
		if (!isFirst(documentSignature(tx, documentId), key)) return;
		if (form.of !== hash) throw new ConflictError(CHANGED);
		const at = world.clock.now();
		const what = form.what === 'accepted' ? 'accepted' : 'received';
		tx.insert(signatures)
			.values({
				key,
				documentId,
				what,
				name: form.name,
				position: form.position,
				drawn,
				way,
				at,
				...from,
				ofSha256: hash
			})
			.run();
		note(tx, {
			documentId,
			at,
			who: way === 'page' ? 'customer' : 'you',
			what: 'signed',
			detail: `${what}:${form.name}`
		});
		if (way === 'page')
			tellOwner(tx, world, `signed:document:${documentId}`, `/billing/${documentId}`, {
				subject: `Signed: ${document.number}`,
				text: `${form.name} signed for ${document.number}: “${SIGNED_WORDS[what]}”\n\nSee it here: {link}`
			});
	});
}

/** Whether anything is there to sign for: an invoice of the owner's own, and of these books. */
export const maySign = ({
	kind,
	origin
}: Pick<typeof documents.$inferSelect, 'kind' | 'origin'>): boolean =>
	kind === 'invoice' && origin !== 'opening';

/** What a link's page says of signing; null where there is nothing to sign for. */
export function signingBehind(
	db: Reader,
	token: string
): { id: number; of: string; signed: { name: string; at: number } | null } | null {
	const row = db.select().from(documents).where(eq(documents.token, token)).get();
	const of = row && maySign(row) ? signedHash(db, row.id) : null;
	if (!row || !of) return null;
	const signature = documentSignature(db, row.id);
	return { id: row.id, of, signed: signature ? { name: signature.name, at: signature.at } : null };
}

function tellOwner(
	tx: Transaction,
	world: World,
	key: string,
	path: string,
	mail: { subject: string; text: string }
): void {
	const { email } = loadBusiness(tx);
	if (email)
		queueMail(tx, world, {
			...mail,
			key,
			kind: 'signed',
			to: email,
			link: `${world.origin}${path}`
		});
}

let drawing: Promise<void> | null = null;

/** Draws the papers with a signature on them that are missing. Safe to run twice: each is set once. */
export function recordSignatures(world: World): Promise<void> {
	drawing ??= recordAll(world).finally(() => (drawing = null));
	return drawing;
}

async function recordAll(world: World): Promise<void> {
	const waiting = world.db
		.select()
		.from(signatures)
		.where(isNull(signatures.record))
		.orderBy(asc(signatures.id))
		.all();
	for (const one of waiting) {
		const pdf = await drawSigned(world, one);
		world.db
			.update(signatures)
			.set({ record: pdf, recordSha256: sha256(pdf) })
			.where(and(eq(signatures.id, one.id), isNull(signatures.record)))
			.run();
	}
}

function drawSigned(world: World, one: Signature): Promise<Buffer> {
	const signed = asShown(one);
	if (one.sheetId !== null) {
		const sheet = world.db.select().from(jobSheets).where(eq(jobSheets.id, one.sheetId)).get()!;
		return drawSheet(world, sheet.frozen!, sheet.written, {
			number: sheet.number!,
			on: sheet.finishedOn!,
			signed
		});
	}
	const document = world.db
		.select()
		.from(documents)
		.where(eq(documents.id, one.documentId!))
		.get()!;
	const view = frozenView(document.frozen!, document.number!, 'copy');
	return drawDocument(
		world,
		{
			...view,
			note: [
				view.note,
				`${SIGNED_WORDS[one.what]} ${signedWords(signed)}`,
				`SHA-256 of the invoice: ${one.ofSha256}`
			]
				.filter(Boolean)
				.join('\n'),
			...(signed.drawn ? { signature: signed.drawn } : {})
		},
		null
	);
}

/** A finished sheet as it reads, with its signature once there is one; null while it is written. */
export function sheetView(db: Reader, sheetId: number) {
	const sheet = db.select().from(jobSheets).where(eq(jobSheets.id, sheetId)).get();
	if (!sheet?.frozen) return null;
	const signature = signatureOf(db, sheetId);
	return jobSheetView(sheet.frozen, sheet.written, {
		number: sheet.number!,
		on: sheet.finishedOn!,
		signed: signature ? asShown(signature) : null
	});
}
