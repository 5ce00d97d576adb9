// The journal: balanced sets of postings, each event once, nothing ever changed.
import type { PlainDate } from '../../core/calendar/types';
import { sql } from 'drizzle-orm';
import { BOOKS, type Currency } from '../../core/money/currencies';
import { shareOfSterling } from '../../core/money/sterling';
import type { Transaction } from './connection';
import { journalEntries, journalLines, type Account } from './schema';

export interface Posting {
	account: Account;
	/** Minor units of the entry's money, pence as a rule; debit above zero, credit below. */
	amount: number;
	/**
	 * In pence, where the entry is in other money. What a customer owes needs none: it stands in the books at its document's
	 * rate. One other posting may leave it out too, and takes what is left.
	 */
	sterling?: number;
	/** The job these are sales of. */
	jobId?: number | null;
	/** Where an event is about several documents: the one this posting is about. */
	documentId?: number | null;
	/** Whose account it is, where that is not the event's customer. */
	customerId?: number;
	/** Of a deduction: the day the contractor paid. */
	paidOn?: string;
	/** Of VAT: the tax point. */
	taxPoint?: string;
}

export interface Event {
	/** Names the event; the same key a second time is an error of the database. */
	key: string;
	event: (typeof journalEntries.$inferInsert)['event'];
	date: PlainDate;
	documentId: number | null;
	/** Null where nobody's account is touched. */
	customerId: number | null;
	recordedAt: number;
	/** Absent: pounds. */
	currency?: Currency;
	postings: Posting[];
}

/** Posts an event in the caller's transaction. Throws where the postings do not balance. */
export function post(
	tx: Transaction,
	{ postings, customerId, currency = BOOKS, ...entry }: Event
): void {
	const given = merged(postings).filter((posting) => posting.amount !== 0 || posting.sterling);
	const lines =
		currency === BOOKS
			? given.map((line) => ({ ...line, sterling: line.amount }))
			: inTheBooks(tx, given, entry.documentId);
	const sum = lines.reduce((total, posting) => total + posting.amount, 0);
	const pence = lines.reduce((total, posting) => total + posting.sterling, 0);
	if (sum !== 0 || pence !== 0 || !lines.every((line) => Number.isSafeInteger(line.amount))) {
		throw new Error(`postings of ${entry.key} do not balance: ${sum}`);
	}
	const { id } = tx.insert(journalEntries).values(entry).returning({ id: journalEntries.id }).get();
	if (lines.length === 0) return;
	tx.insert(journalLines)
		.values(
			lines.map((line) => ({
				documentId: entry.documentId,
				customerId,
				...line,
				currency,
				entryId: id
			}))
		)
		.run();
}

/** Postings in other money with their pence: what a customer owes at its document's rate, and what is left as a difference. */
function inTheBooks(
	tx: Transaction,
	postings: readonly Posting[],
	about: number | null
): (Posting & { sterling: number })[] {
	const owed = new Map<number, { base: number; total: number; sterling: number; at: number }>();
	let left = 0;
	let open: (Posting & { sterling: number }) | null = null;
	const lines = postings.map((posting) => {
		const line = { ...posting, sterling: posting.sterling ?? 0 };
		if (posting.account === 'receivable') {
			const document = standsAt(tx, posting.documentId ?? about, owed);
			const { total, sterling, at } = document;
			document.at += posting.amount;
			line.sterling =
				shareOfSterling(document.at, total, sterling) - shareOfSterling(at, total, sterling);
		} else if (posting.sterling === undefined) {
			if (open) throw new Error('only one posting in other money may take what is left');
			open = line;
		}
		left -= line.sterling;
		return line;
	});
	if (open) (open as { sterling: number }).sterling = left;
	else if (left !== 0) lines.push({ account: 'exchange', amount: 0, sterling: left });
	return lines;
}

/** What is owed on an invoice by the journal, its credit notes with it, before this entry. */
function standsAt(
	tx: Transaction,
	documentId: number | null,
	known: Map<number, { base: number; total: number; sterling: number; at: number }>
) {
	const base = tx.get<{ base: number; total: number; sterling: number }>(sql`
		select b.id as base, b.total, b.total_sterling as sterling from documents d
		join documents b on b.id = coalesce(d.corrects_id, d.id) where d.id = ${documentId}`);
	if (!base) throw new Error('what is owed in other money stands on a document');
	const same = known.get(base.base);
	if (same) return same;
	const { at } = tx.get<{ at: number }>(sql`
		select coalesce(sum(l.amount), 0) as at from documents d join journal_lines l on l.document_id = d.id
		where (d.id = ${base.base} or d.corrects_id = ${base.base}) and l.account = 'receivable'`)!;
	const found = { ...base, at };
	known.set(base.base, found);
	return found;
}

/** What goes to one account for one reason is one line. */
function merged(postings: readonly Posting[]): Posting[] {
	const lines = new Map<string, Posting>();
	for (const posting of postings) {
		const { account, jobId, documentId, customerId, paidOn, taxPoint } = posting;
		const key = JSON.stringify([account, jobId, documentId ?? 'own', customerId, paidOn, taxPoint]);
		const line = lines.get(key);
		if (line) {
			line.amount += posting.amount;
			if (posting.sterling !== undefined) line.sterling = (line.sterling ?? 0) + posting.sterling;
		} else lines.set(key, { ...posting });
	}
	return [...lines.values()];
}
