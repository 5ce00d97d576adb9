// Drafts: begun, saved as typed, copied, put aside and brought back. Nothing typed is ever lost.
import { must } from '../../actor';
import { and, desc, eq } from 'drizzle-orm';
import { BOOKS } from '../../../core/money/currencies';
import { blankSheet, isBlank } from '../../../core/sheet/blank';
import { sheetForm } from '../../../core/sheet/form';
import { readSheet, type SheetReading } from '../../../core/sheet/read';
import type { Sheet } from '../../../core/sheet/types';
import { writeAtOnce, type Transaction, type Reader } from '../../db/connection';
import { documents, type DocumentOrigin } from '../../db/schema';
import type { World } from '../../world';
import { customerRecord } from '../customers/parts';
import { ConflictError, FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { freeTaken, syncTaken, withoutTaken } from '../jobs/takenParts';
import { indexDocument } from '../trail/search';
import { restoreStage } from '../jobs/stageBooks';
import { note } from '../trail/documents';
import { sheetContext } from './context';

/**
 * Begins an invoice. The same `key` again, or an untouched draft that is still there, gives that one back.
 * @returns the draft's id
 */
export function beginInvoice(world: World, key: string, customerId: number | null = null): number {
	must('bill');
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const same = madeBefore(tx, key);
		if (same !== null) return same;
		const untouched = tx
			.select()
			.from(documents)
			.where(
				and(eq(documents.state, 'draft'), eq(documents.version, 1), eq(documents.kind, 'invoice'))
			)
			.orderBy(desc(documents.id))
			.get();
		const sheet: Sheet = { ...blankSheet(), customerId };
		if (untouched && isUntouched(untouched.sheet)) {
			if (customerId === null) return untouched.id;
			if (untouched.sheet.customerId === customerId) return untouched.id;
		}
		return insertDraft(tx, key, { sheet, origin: 'typed' }, now);
	});
}

function isUntouched(sheet: Sheet): boolean {
	return (
		sheet.customerId === null &&
		sheet.rows.every(isBlank) &&
		sheet.note === '' &&
		sheet.reference === ''
	);
}

/** A draft that records what a contractor wrote in our name. The same `key` again gives that one back. */
export function beginSelfBilled(world: World, key: string): number {
	must('bill');
	return writeAtOnce(world.db, (tx) =>
		draftOnce(tx, world, key, () => ({
			sheet: { ...blankSheet(), selfBilled: { number: '', agreedOn: '' } },
			origin: 'selfBilled'
		}))
	);
}

export interface NewDraft {
	sheet: Sheet;
	origin: DocumentOrigin;
	/** By its origin: the late invoice, or the payment whose card fee it bills. */
	aboutId?: number;
}

function madeBefore(tx: Transaction, key: string): number | null {
	const same = tx.select({ id: documents.id }).from(documents).where(eq(documents.key, key)).get();
	return same?.id ?? null;
}

/**
 * A draft with its figures, which takes what its lines bill, in the caller's transaction. The same key again gives the
 * same draft, and `make` is not asked.
 */
export function draftOnce(
	tx: Transaction,
	world: World,
	key: string,
	make: () => NewDraft,
	after: (id: number) => void = () => undefined
): number {
	const same = madeBefore(tx, key);
	if (same !== null) return same;
	const draft = make();
	const id = insertDraft(tx, key, draft, world.clock.now());
	computeDraft(tx, id, draft.sheet, world.clock.today());
	after(id);
	return id;
}

function insertDraft(
	tx: Transaction,
	key: string,
	{ sheet: given, origin, aboutId }: NewDraft,
	now: number
): number {
	const customer = customerRecord(tx, given.customerId);
	// Prices that come from elsewhere are in the money they were written in.
	const sheet = origin === 'typed' ? inTheirMoney(given, customer?.currency) : given;
	const { id } = tx
		.insert(documents)
		.values({
			kind: 'invoice',
			state: 'draft',
			key,
			origin,
			aboutId: aboutId ?? null,
			customerId: customer?.id ?? null,
			customerName: customer?.name ?? '',
			sheet,
			createdAt: now,
			updatedAt: now
		})
		.returning({ id: documents.id })
		.get();
	note(tx, { documentId: id, at: now, who: 'you', what: 'begun' });
	syncTaken(tx, id, sheet);
	return id;
}

/** What is written for a customer is in its money, unless the document says otherwise. */
const inTheirMoney = (sheet: Sheet, currency: Sheet['currency'] = BOOKS): Sheet =>
	sheet.currency || currency === BOOKS ? sheet : { ...sheet, currency };

/** Works out what a draft comes to and makes it findable, as saving it does. In the caller's transaction. */
export function computeDraft(tx: Transaction, id: number, sheet: Sheet, today: string): void {
	const reading = readSheet(sheet, sheetContext(tx, sheet, today));
	const total = reading.figures ? safePence(reading.figures.total) : 0;
	const customerName = reading.customer?.name ?? '';
	tx.update(documents)
		.set({
			customerId: reading.customer?.id ?? null,
			customerName,
			workKindId: sheet.workKindId ?? null,
			total,
			currency: sheet.currency ?? BOOKS,
			totalSterling: sterlingOf(reading),
			net: reading.figures ? safePence(reading.figures.net) : 0,
			dueDate: reading.dates.dueDate
		})
		.where(eq(documents.id, id))
		.run();
	indexDocument(tx, id, { number: '', customer: customerName, total, sheet });
}

export function loadDraft(db: Reader, id: number) {
	const row = db.select().from(documents).where(eq(documents.id, id)).get();
	if (!row || row.state === 'discarded') throw new NotFoundError('This draft');
	return row;
}

/** How far a draft is, without its sheet. @throws NotFoundError */
export function draftState(db: Reader, id: number) {
	const row = db
		.select({ state: documents.state, version: documents.version, number: documents.number })
		.from(documents)
		.where(eq(documents.id, id))
		.get();
	if (!row || row.state === 'discarded') throw new NotFoundError('This draft');
	return row;
}

/**
 * Saves a draft as typed. The figures are worked out again here; what the browser showed is not trusted.
 * @returns the new version
 * @throws ConflictError where another tab saved first, RefusedError where it has been issued meanwhile.
 */
export function saveDraft(
	world: World,
	id: number,
	version: number,
	input: unknown
): { version: number; savedAt: number } {
	must('bill');
	const parsed = sheetForm.safeParse(input);
	if (!parsed.success)
		throw new FieldError({ [parsed.error.issues[0]!.path.join('.')]: 'This could not be read.' });
	const sheet = parsed.data;
	const now = world.clock.now();
	return writeAtOnce(world.db, (tx) => {
		const row = tx.select().from(documents).where(eq(documents.id, id)).get();
		if (!row || row.state === 'discarded') throw new NotFoundError('This draft');
		if (row.state === 'issued')
			throw new RefusedError(
				'This invoice has been issued in the meantime and does not change any more.'
			);
		if (row.version !== version) throw new ConflictError('This draft was changed in another tab.');
		if (
			sheet.about?.invoiceId !== row.sheet.about?.invoiceId ||
			sheet.about?.as !== row.sheet.about?.as
		)
			throw new FieldError({ about: 'What a draft corrects does not change.' });
		if ((sheet.selfBilled === undefined) !== (row.origin !== 'selfBilled'))
			throw new FieldError({ selfBilled: 'Who wrote it does not change.' });
		tx.update(documents)
			.set({ sheet, version: version + 1, updatedAt: now })
			.where(eq(documents.id, id))
			.run();
		computeDraft(tx, id, sheet, world.clock.today());
		syncTaken(tx, id, sheet);
		return { version: version + 1, savedAt: now };
	});
}

/** What a draft would come to in the books; zero where no rate is known yet. */
function sterlingOf({ figures, input }: SheetReading): number {
	if (!figures || !input) return 0;
	const { sterling, total } = figures;
	if (sterling) return safePence(sterling.net + sterling.vatCharged);
	return input.currency === BOOKS ? safePence(total) : 0;
}

/** Pence as a number; zero beyond what a column holds exactly (such a draft cannot be issued anyway). */
function safePence(minor: bigint): number {
	const value = Number(minor);
	return Number.isSafeInteger(value) ? value : 0;
}

/** Puts a draft aside, or brings it back. */
export function discardDraft(world: World, id: number, discarded: boolean): void {
	must('bill');
	writeAtOnce(world.db, (tx) => discardInTransaction(tx, world, id, discarded));
}

/** As `discardDraft`, in the caller's transaction. */
export function discardInTransaction(
	tx: Transaction,
	world: World,
	id: number,
	discarded: boolean
): void {
	const now = world.clock.now();
	const row = tx.select().from(documents).where(eq(documents.id, id)).get();
	if (row?.state === 'issued')
		throw new RefusedError(
			'This invoice has been issued, so it cannot be thrown away. Credit it instead.'
		);
	if (row?.state !== (discarded ? 'draft' : 'discarded')) return;
	tx.update(documents)
		.set({ state: discarded ? 'discarded' : 'draft', updatedAt: now })
		.where(eq(documents.id, id))
		.run();
	if (discarded) return freeTaken(tx, id, now);
	// What somebody else bills by now stays theirs, and issuing says so.
	syncTaken(tx, id, row.sheet);
	restoreStage(tx, id);
}

/** A new draft with everything of another document but its dates and its order number. */
export function copyAsDraft(world: World, id: number, key: string): number {
	must('bill');
	return writeAtOnce(world.db, (tx) =>
		draftOnce(tx, world, key, () => {
			const row = tx.select().from(documents).where(eq(documents.id, id)).get();
			if (!row) throw new NotFoundError('This document');
			// What was on that one alone stays there.
			const { own: _own, ...kept } = withoutTaken(row.sheet);
			const sheet: Sheet = {
				...kept,
				issueDate: '',
				workFinished: '',
				dueDate: '',
				orderNumber: ''
			};
			return { sheet, origin: 'copy' };
		})
	);
}
