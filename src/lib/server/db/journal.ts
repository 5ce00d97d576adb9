// The journal: balanced sets of postings, each event once, nothing ever changed.
import type { PlainDate } from '../../core/calendar/types';
import type { Transaction } from './connection';
import { journalEntries, journalLines, type Account } from './schema';

export interface Posting {
	account: Account;
	/** Pence; debit above zero, credit below. */
	amount: number;
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
	postings: Posting[];
}

/** Posts an event in the caller's transaction. Throws where the postings do not balance. */
export function post(tx: Transaction, { postings, customerId, ...entry }: Event): void {
	const lines = merged(postings).filter((posting) => posting.amount !== 0);
	const sum = lines.reduce((total, posting) => total + posting.amount, 0);
	if (sum !== 0 || !lines.every((line) => Number.isSafeInteger(line.amount))) {
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
				// Sterling alone for now: the books' amount is the currency's.
				sterling: line.amount,
				entryId: id
			}))
		)
		.run();
}

/** What goes to one account for one reason is one line. */
function merged(postings: readonly Posting[]): Posting[] {
	const lines = new Map<string, Posting>();
	for (const posting of postings) {
		const { account, jobId, documentId, customerId, paidOn, taxPoint } = posting;
		const key = JSON.stringify([account, jobId, documentId ?? 'own', customerId, paidOn, taxPoint]);
		const line = lines.get(key);
		if (line) line.amount += posting.amount;
		else lines.set(key, { ...posting });
	}
	return [...lines.values()];
}
