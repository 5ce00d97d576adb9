// Photos and files of a job, a customer, a document or a cost. What a file is, is told by its content, never by its name.
import { and, asc, desc, eq, inArray, isNull, lt, sql } from 'drizzle-orm';
import { z } from 'zod';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { storeFile, storedFile } from '../../db/fileStore';
import { files } from '../../db/schema';
import type { World } from '../../world';
import { actor, must } from '../../actor';
import { FieldError, ForbiddenError, NotFoundError, RefusedError } from '../../../core/refusals';
import { sha256 } from '../business/keys';
import { prepareFile } from './prepare';

export const FILE_OWNERS = ['job', 'customer', 'document', 'purchase', 'quote', 'enquiry'] as const;
/** What a file belongs to. */
export interface Belongs {
	to: (typeof FILE_OWNERS)[number];
	id: number;
}

const COLUMN = {
	job: files.jobId,
	customer: files.customerId,
	document: files.documentId,
	purchase: files.purchaseId,
	quote: files.quoteId,
	enquiry: files.enquiryId
} as const;
const KEY = {
	job: 'jobId',
	customer: 'customerId',
	document: 'documentId',
	purchase: 'purchaseId',
	quote: 'quoteId',
	enquiry: 'enquiryId'
} as const;
const TABLE = {
	job: 'jobs',
	customer: 'customers',
	document: 'documents',
	purchase: 'purchases',
	quote: 'quotes',
	enquiry: 'enquiries'
} as const;

/** So many of one thing: more are found by nobody, and no list shows them. */
const MOST = 500;

/** So much goes along with an e-mail: what mail servers take everywhere. */
export const MOST_ATTACHED_BYTES = 10 * 1024 * 1024;

const LONGEST_NAME = 200;

const whereOf = ({ to, id }: Belongs) => and(eq(COLUMN[to], id), isNull(files.removedAt));

/** On site somebody reaches the files of those jobs they have a visit to, and no others. @throws ForbiddenError */
function mustReach(db: Reader, { to, id }: Belongs): void {
	must('site', 'work');
	const who = actor();
	if (who?.role !== 'onSite') return;
	const own =
		to === 'job' &&
		db.get(sql`select 1 as yes from visits where job_id = ${id} and person_id = ${who.id} limit 1`);
	if (!own) throw new ForbiddenError();
}

/** What a file belongs to. */
const belongingOf = (row: typeof files.$inferSelect): Belongs =>
	FILE_OWNERS.flatMap((to): Belongs[] => {
		const id = row[KEY[to]];
		return id === null ? [] : [{ to, id }];
	})[0]!;

function mustExist(db: Reader, { to, id }: Belongs): void {
	const found = db.get<{ id: number }>(
		sql`select id from ${sql.identifier(TABLE[to])} where id = ${id}`
	);
	if (!found) throw new NotFoundError('What this belongs to');
}

/**
 * Adds a photo or file. The same one again changes nothing.
 * @returns its number @throws FieldError, NotFoundError
 */
export async function addFile(
	world: World,
	belongs: Belongs,
	name: string,
	bytes: Buffer
): Promise<number> {
	mustReach(world.db, belongs);
	mustExist(world.db, belongs);
	const file = await storeForLater(world, name, bytes);
	return writeAtOnce(world.db, (tx) => {
		mustExist(tx, belongs);
		return putFile(tx, belongs, file, world.clock.now());
	});
}

/** What a file is, with its bytes laid down already: it belongs to nothing yet. */
export type Stored = Pick<
	typeof files.$inferInsert,
	'name' | 'type' | 'size' | 'stored' | 'sha256' | 'thumbnail'
>;

/** Reads a file and lays down its bytes, so that a transaction can put it to something. @throws FieldError */
export async function storeForLater(world: World, name: string, bytes: Buffer): Promise<Stored> {
	const { content, ...prepared } = await prepareFile(bytes);
	return {
		...prepared,
		stored: storeFile(world.db, content),
		size: content.length,
		name: name.slice(0, LONGEST_NAME) || 'file',
		sha256: sha256(bytes)
	};
}

/** Puts a file to something, once. @returns its number @throws FieldError where too many are there */
export function putFile(tx: Transaction, belongs: Belongs, file: Stored, at: number): number {
	const same = tx
		.select({ id: files.id, removedAt: files.removedAt })
		.from(files)
		.where(and(eq(COLUMN[belongs.to], belongs.id), eq(files.sha256, file.sha256)))
		.get();
	// Brought once more after it was taken away: it is back.
	if (same?.removedAt != null)
		tx.update(files).set({ removedAt: null }).where(eq(files.id, same.id)).run();
	if (same) return same.id;
	const { n } = tx
		.select({ n: sql<number>`count(*)` })
		.from(files)
		.where(whereOf(belongs))
		.get()!;
	if (n >= MOST) throw new FieldError({ file: `There are ${MOST} files here already.` });
	return tx
		.insert(files)
		.values({ ...file, [KEY[belongs.to]]: belongs.id, addedAt: at })
		.returning({ id: files.id })
		.get().id;
}

export interface FileShown {
	id: number;
	name: string;
	type: string;
	size: number;
	goesOut: boolean;
	addedAt: number;
	/** It has a small picture. */
	picture: boolean;
}

const SHOWN = {
	id: files.id,
	name: files.name,
	type: files.type,
	size: files.size,
	goesOut: files.goesOut,
	addedAt: files.addedAt,
	picture: sql<boolean>`${files.thumbnail} is not null`.mapWith(Boolean)
};

/** The newest first. */
export const filesOf = (db: Reader, belongs: Belongs): FileShown[] =>
	db.select(SHOWN).from(files).where(whereOf(belongs)).orderBy(desc(files.id)).all();

/** Those that go out with a document or a quote, in the order they were added. */
export const filesGoingOut = (
	db: Reader,
	id: number,
	to: 'document' | 'quote' = 'document'
): FileShown[] =>
	db
		.select(SHOWN)
		.from(files)
		.where(and(whereOf({ to, id }), eq(files.goesOut, true)))
		.orderBy(asc(files.id))
		.all();

/** Of the files that go out those that an e-mail can carry; the others are on the page behind its link. */
export function filesToAttach(db: Reader, documentId: number): FileShown[] {
	let left = MOST_ATTACHED_BYTES;
	return filesGoingOut(db, documentId).filter(({ size }) => {
		if (size > left) return false;
		left -= size;
		return true;
	});
}

/** What it holds. @param of null: whatever it belongs to @throws NotFoundError */
export function loadFile(
	world: World,
	id: number,
	small: boolean,
	of: Belongs | null = null
): { name: string; type: string; content: Buffer; goesOut: boolean } {
	const row = world.db
		.select()
		.from(files)
		.where(and(eq(files.id, id), isNull(files.removedAt), of ? whereOf(of) : undefined))
		.get();
	// Behind a link the document says what goes out; everybody else is asked who they are.
	if (row && of === null) mustReach(world.db, belongingOf(row));
	const content = (small && row?.thumbnail) || (row?.stored && storedFile(world.db, row.stored));
	if (!row || !content) throw new NotFoundError('This file');
	return {
		name: row.name,
		type: small && row.thumbnail ? 'image/jpeg' : row.type,
		content,
		goesOut: row.goesOut
	};
}

/** What came with one thing belongs to another too: its bytes are there once. In the caller's transaction. */
export function copyFiles(tx: Transaction, from: Belongs, to: Belongs, at: number): void {
	for (const { id: _id, ...row } of tx.select().from(files).where(whereOf(from)).all())
		tx.insert(files)
			.values({ ...row, [KEY[from.to]]: null, [KEY[to.to]]: to.id, goesOut: false, addedAt: at })
			.onConflictDoNothing()
			.run();
}

/** Files by their numbers, for an e-mail that takes them along; what is gone meanwhile is left out. */
export const attachments = (world: World, ids: readonly number[]) =>
	ids.length === 0
		? []
		: world.db
				.select({ name: files.name, type: files.type, stored: files.stored })
				.from(files)
				.where(and(inArray(files.id, [...ids]), eq(files.goesOut, true), isNull(files.removedAt)))
				.orderBy(asc(files.id))
				.all()
				.flatMap(({ name, type, stored }) => {
					const content = stored && storedFile(world.db, stored);
					return content ? [{ filename: name, content, contentType: type }] : [];
				});

const change = z.object({
	name: z
		.string()
		.trim()
		.min(1, 'Give it a name.')
		.max(LONGEST_NAME, `At most ${LONGEST_NAME} characters.`)
		.optional(),
	goesOut: z.boolean().optional(),
	/** Taken away, or back again. */
	removed: z.boolean().optional()
});

/** Another name, whether it goes out with its document, taken away or back. @throws FieldError, NotFoundError, RefusedError */
export function changeFile(world: World, id: number, typed: unknown): void {
	const read = change.safeParse(typed);
	if (!read.success) throw new FieldError({ name: read.error.issues[0]!.message });
	writeAtOnce(world.db, (tx) => {
		const row = tx.select().from(files).where(eq(files.id, id)).get();
		if (!row) throw new NotFoundError('This file');
		mustReach(tx, belongingOf(row));
		if (read.data.goesOut && row.documentId === null && row.quoteId === null)
			throw new RefusedError('Only what is with a document or a quote goes out with it.');
		const { name, goesOut, removed } = read.data;
		const set = {
			...(name ? { name } : {}),
			...(goesOut === undefined ? {} : { goesOut }),
			...(removed === undefined ? {} : { removedAt: removed ? world.clock.now() : null })
		};
		if (Object.keys(set).length) tx.update(files).set(set).where(eq(files.id, id)).run();
	});
}

const DAY = 86_400_000;

/** What was taken away a day ago is gone for good. */
export function forgetRemoved(world: World): void {
	world.db
		.delete(files)
		.where(lt(files.removedAt, world.clock.now() - DAY))
		.run();
}
