// Job sheets on their way: by mail alone, or with the invoice of the same work; and what their link shows.
import { and, asc, eq, inArray, isNotNull, sql } from 'drizzle-orm';
import { z } from 'zod';
import { sheetMessage } from '../../../core/jobs/wording';
import type { SheetBeside } from '../../../core/documents/detail';
import type { Message } from '../../../core/documents/wording';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { must } from '../../actor';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { storeFile } from '../../db/fileStore';
import {
	billedParts,
	customers,
	files,
	jobs,
	jobSheets,
	signatures,
	stages
} from '../../db/schema';
import type { World } from '../../world';
import { parseForm, text } from '../business/fields';
import { isToken } from '../business/keys';
import { linkToday } from '../business/links';
import { mustNotRest } from '../business/resting';
import { loadBusiness } from '../business/settings';
import { mailAddresses } from '../customers/parts';
import { readAddresses, readMessage } from '../invoices/send';
import { queueMail } from '../messages/outbox';
import { noteJob } from '../trail/jobs';
import { voiceFor } from '../wordings/voice';
import { loadSheet, signatureOf, type JobSheet } from './sheets';
import { sheetPaper } from './sheetPaper';

export const sheetLink = (db: Reader, world: World, { token }: Pick<JobSheet, 'token'>): string =>
	`${world.origin}/j/${linkToday(db, token)}`;

/** What the message begins with. @throws NotFoundError */
export function prepareSheet(world: World, sheetId: number): Message & { to: string } {
	must('site');
	const { db } = world;
	const sheet = loadSheet(db, sheetId);
	const { customerId, title } = db
		.select({ customerId: jobs.customerId, title: jobs.title })
		.from(jobs)
		.where(eq(jobs.id, sheet.jobId))
		.get()!;
	const customer = db.select().from(customers).where(eq(customers.id, customerId)).get()!;
	const message = sheetMessage(
		voiceFor(db, customerId),
		{ name: customer.name, household: customer.kind === 'household' },
		loadBusiness(db),
		{
			title,
			number: sheet.number ?? '',
			place: sheet.frozen?.site?.name ?? '',
			signed: signatureOf(db, sheetId)?.name ?? ''
		}
	);
	return { ...message, to: mailAddresses(db, customerId)[0] ?? '' };
}

const sendForm = z.object({
	key: z.string().min(1).max(100),
	to: z.string().max(2000),
	subject: text(300),
	text: text(20_000)
});

/** Sends it with its PDF. The same key again changes nothing. @throws FieldError; RefusedError while it is written */
export function sendSheet(world: World, sheetId: number, typed: unknown): void {
	must('site');
	mustNotRest(world.db);
	const form = parseForm(sendForm, typed);
	const to = readAddresses(form.to);
	const message = readMessage(form);
	writeAtOnce(world.db, (tx) => {
		const sheet = loadSheet(tx, sheetId);
		if (sheet.state !== 'finished') throw new RefusedError('Finish it first.');
		const queued = queueMail(tx, world, {
			key: `sheet:${sheetId}:${form.key}`,
			kind: 'jobSheet',
			sheetId,
			to,
			...message,
			link: sheetLink(tx, world, sheet),
			attachPdf: true
		});
		if (queued) noteJob(tx, sheet.jobId, world.clock.now(), 'sheetSent', `${sheet.number}, ${to}`);
	});
}

/** Finished sheets of the jobs a document bills, the oldest first. */
export function sheetsFor(db: Reader, documentId: number) {
	const jobIds = db
		.select({ jobId: billedParts.jobId })
		.from(billedParts)
		.where(eq(billedParts.documentId, documentId))
		.union(db.select({ jobId: stages.jobId }).from(stages).where(eq(stages.documentId, documentId)))
		.all()
		.map(({ jobId }) => jobId);
	if (jobIds.length === 0) return [];
	return db
		.select({
			id: jobSheets.id,
			number: jobSheets.number,
			signedBy: signatures.name,
			// Of the paper that counts: with the signature once there is one.
			hash: sql<string>`coalesce(nullif(${signatures.recordSha256}, ''), ${jobSheets.sha256})`
		})
		.from(jobSheets)
		.leftJoin(signatures, eq(signatures.sheetId, jobSheets.id))
		.where(and(inArray(jobSheets.jobId, jobIds), isNotNull(jobSheets.number)))
		.orderBy(asc(jobSheets.jobId), asc(jobSheets.n))
		.all()
		.map(({ hash, ...sheet }) => ({
			...sheet,
			number: sheet.number!,
			hash,
			/** It goes out with the document already. */
			with:
				db
					.select({ id: files.id })
					.from(files)
					.where(
						and(
							eq(files.documentId, documentId),
							eq(files.sha256, hash),
							eq(files.goesOut, true),
							sql`${files.removedAt} is null`
						)
					)
					.get() !== undefined
		}));
}

/** The same, as a page shows them. */
export const sheetsBeside = (db: Reader, documentId: number): SheetBeside[] =>
	sheetsFor(db, documentId).map(({ hash: _hash, ...one }) => one);

/**
 * Puts job sheets beside the document that bills their jobs, so that they go out with it: on its page, and with its e-mail.
 * @param only one of them; absent: all
 */
export function attachSheets(world: World, documentId: number, only?: number): void {
	must('work');
	const { db, clock } = world;
	const wanted = sheetsFor(db, documentId).filter(
		(one) => !one.with && (only === undefined || one.id === only)
	);
	for (const { id, hash } of wanted) {
		const sheet = db.select().from(jobSheets).where(eq(jobSheets.id, id)).get()!;
		const { name, content } = sheetPaper(db, sheet)!;
		const stored = storeFile(db, content);
		writeAtOnce(db, (tx: Transaction) =>
			tx
				.insert(files)
				.values({
					documentId,
					name,
					type: 'application/pdf',
					size: content.length,
					sha256: hash,
					stored,
					goesOut: true,
					addedAt: clock.now()
				})
				.onConflictDoUpdate({
					target: [files.documentId, files.sha256],
					set: { goesOut: true, removedAt: null }
				})
				.run()
		);
	}
}

/** @throws NotFoundError for every link that is not exactly right */
export function sheetByToken(db: Reader, token: string): JobSheet {
	const row = isToken(token)
		? db.select().from(jobSheets).where(eq(jobSheets.token, token)).get()
		: undefined;
	if (row?.state !== 'finished') throw new NotFoundError('This page');
	return row;
}
