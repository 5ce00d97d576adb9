// What was brought in is taken back, as long as nothing was built on it: it is removed as if it had never come.
import { and, eq, sql } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { displayPounds } from '../../../core/money/display';
import { NotFoundError } from '../../../core/refusals';
import { actor, must } from '../../actor';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import {
	allocations,
	documentLabels,
	documentLines,
	documentFiles,
	documents,
	jobs,
	journalEntries,
	journalLines,
	movedRows,
	movings,
	openItems,
	payments,
	repeats,
	retentions,
	takenBack,
	taxPoints,
	trail
} from '../../db/schema';
import type { World } from '../../world';
import { forgetDocument } from '../trail/search';

export interface TakenBack {
	taken: number;
	/** What stays, because something was built on it. */
	kept: { name: string; why: string }[];
}

/** Takes back what a file brought, as far as nothing was built on it. @throws NotFoundError */
export function takeBackMoving(world: World, movingId: number): TakenBack {
	must('owner');
	return writeAtOnce(world.db, (tx) => {
		if (!tx.select().from(movings).where(eq(movings.id, movingId)).get())
			throw new NotFoundError('This file');
		const rows = tx.select().from(movedRows).where(eq(movedRows.movingId, movingId)).all();
		const kept: TakenBack['kept'] = [];
		let taken = 0;
		// Jobs last: what stands on them goes first.
		rows.sort((a, b) => Number(a.what === 'job') - Number(b.what === 'job') || b.rowId - a.rowId);
		for (const { what, rowId } of rows) {
			const why = BACK[what](tx, world, rowId);
			if (why !== null && what !== 'job') kept.push(why);
			if (why !== null) continue;
			tx.delete(movedRows)
				.where(and(eq(movedRows.what, what), eq(movedRows.rowId, rowId)))
				.run();
			if (what !== 'job') taken++;
		}
		return { taken, kept };
	});
}

type Back = (tx: Transaction, world: World, id: number) => { name: string; why: string } | null;

/** Each takes one thing back, or says why it stays. */
const BACK: Readonly<Record<(typeof movedRows.$inferSelect)['what'], Back>> = {
	document: backDocument,
	payment: backPayment,
	repeat: backRepeat,
	job: backJob
};

/** Tables with a row that goes along with a document; of any other table a row stands on it. */
const ALONG_DOCUMENT = new Set([
	'document_lines',
	'document_files',
	'document_labels',
	'tax_points',
	'trail',
	'open_items',
	'allocations',
	'journal_entries',
	'journal_lines',
	'retentions',
	'trials'
]);
/** What the trail has of one that was only brought in. */
const OWN_TRAIL = sql`('broughtIn', 'paid', 'begun')`;

function backDocument(tx: Transaction, world: World, id: number) {
	const row = tx.select().from(documents).where(eq(documents.id, id)).get();
	if (!row) return null;
	const name = `${row.number}, ${row.customerName}`;
	const why = standsOnDocument(tx, id);
	if (why) return { name, why };
	const own = tx
		.select({ id: payments.id })
		.from(allocations)
		.innerJoin(payments, eq(payments.id, allocations.paymentId))
		.where(eq(allocations.documentId, id))
		.all()
		.map((payment) => payment.id);
	// By its number alone: whose it was is nobody's business once it is gone.
	const number = row.number!;
	leave(tx, world, 'document', id, number);
	for (const paymentId of own) {
		leave(tx, world, 'payment', paymentId, number);
		removeEntry(tx, world, `payment:${paymentId}`, number);
		tx.delete(allocations).where(eq(allocations.paymentId, paymentId)).run();
		tx.delete(payments).where(eq(payments.id, paymentId)).run();
	}
	removeEntry(tx, world, `issue:${id}`, number);
	for (const table of [
		openItems,
		documentLines,
		documentFiles,
		documentLabels,
		taxPoints,
		trail,
		retentions
	])
		tx.delete(table).where(eq(table.documentId, id)).run();
	forgetDocument(tx, id);
	tx.delete(documents).where(eq(documents.id, id)).run();
	return null;
}

function standsOnDocument(tx: Transaction, id: number): string {
	const paid = tx
		.select({ id: payments.id })
		.from(allocations)
		.innerJoin(payments, eq(payments.id, allocations.paymentId))
		.where(and(eq(allocations.documentId, id), sql`${payments.source} <> 'opening'`))
		.get();
	if (paid) return 'a payment of it was recorded';
	const corrected = tx
		.select({ number: documents.number })
		.from(documents)
		.where(sql`${documents.correctsId} = ${id} and ${documents.state} = 'issued'`)
		.get();
	if (corrected) return `${corrected.number} credits it`;
	const about = tx
		.select({ n: sql`1` })
		.from(documents)
		.where(
			sql`${documents.aboutId} = ${id} and ${documents.origin} in ('lateCharge', 'replacement', 'debitNote', 'correction')
				and ${documents.state} <> 'discarded'`
		)
		.get();
	if (about) return 'another document is about it';
	const released = tx
		.select({ n: sql`1` })
		.from(retentions)
		.where(sql`${retentions.documentId} = ${id} and ${retentions.releasedById} is not null`)
		.get();
	if (released) return 'what it held back was released';
	const happened = tx
		.select({ what: trail.what })
		.from(trail)
		.where(sql`${trail.documentId} = ${id} and ${trail.what} not in ${OWN_TRAIL}`)
		.get();
	if (happened) return 'it was sent, opened or reminded of here';
	return standsOn(tx, 'documents', id, ALONG_DOCUMENT) ? 'something else was built on it' : '';
}

function backPayment(tx: Transaction, world: World, id: number) {
	const row = tx.select().from(payments).where(eq(payments.id, id)).get();
	if (!row) return null;
	const name = `${displayPounds(row.amount)} of ${displayDate(row.date)}`;
	const billed = tx
		.select({ n: sql`1` })
		.from(documents)
		.where(
			sql`${documents.aboutId} = ${id} and ${documents.origin} = 'deposit' and ${documents.state} <> 'discarded'`
		)
		.get();
	if (billed) return { name, why: 'its deposit invoice was written' };
	if (standsOn(tx, 'payments', id, new Set())) return { name, why: 'it was used, or given back' };
	leave(tx, world, 'payment', id, name);
	removeEntry(tx, world, `payment:${id}`, name);
	tx.delete(payments).where(eq(payments.id, id)).run();
	return null;
}

function backRepeat(tx: Transaction, _world: World, id: number) {
	const row = tx.select().from(repeats).where(eq(repeats.id, id)).get();
	if (!row) return null;
	if (standsOn(tx, 'repeats', id, new Set()))
		return { name: row.name, why: 'it has been billed, or changed' };
	tx.delete(repeats).where(eq(repeats.id, id)).run();
	return null;
}

function backJob(tx: Transaction, _world: World, id: number) {
	const row = tx.select().from(jobs).where(eq(jobs.id, id)).get();
	if (!row) return null;
	if (standsOn(tx, 'jobs', id, new Set(['job_trail'])))
		return { name: row.number, why: 'something else stands on it' };
	tx.run(sql`delete from job_trail where job_id = ${id}`);
	tx.delete(jobs).where(eq(jobs.id, id)).run();
	return null;
}

/** Leave to remove what otherwise never goes, and the note that it went. */
function leave(
	tx: Transaction,
	{ clock }: World,
	what: 'document' | 'payment' | 'entry',
	rowId: number,
	name: string
): void {
	tx.insert(takenBack)
		.values({ what, rowId, name, personId: actor()?.id ?? null, at: clock.now() })
		.run();
}

function removeEntry(tx: Transaction, world: World, key: string, name: string): void {
	const entry = tx
		.select({ id: journalEntries.id })
		.from(journalEntries)
		.where(eq(journalEntries.key, key))
		.get();
	if (!entry) return;
	leave(tx, world, 'entry', entry.id, name);
	tx.delete(journalLines).where(eq(journalLines.entryId, entry.id)).run();
	tx.delete(journalEntries).where(eq(journalEntries.id, entry.id)).run();
}

/** Whether any row of the data refers to one, but for tables whose rows go along: so that no table to come is forgotten. */
function standsOn(db: Reader, table: string, id: number, along: ReadonlySet<string>): boolean {
	const references = db.all<{ name: string; column: string }>(sql`
		select m.name, f."from" as column from sqlite_schema m, pragma_foreign_key_list(m.name) f
		where m.type = 'table' and f."table" = ${table}`);
	return references.some(
		({ name, column }) =>
			!along.has(name) &&
			db.get(
				sql`select 1 from ${sql.identifier(name)} where ${sql.identifier(column)} = ${id} limit 1`
			) !== undefined
	);
}
