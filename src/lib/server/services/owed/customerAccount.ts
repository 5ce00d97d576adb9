// A customer's account: the running list out of the journal, and how long the customer takes to pay.
import { and, desc, eq, isNotNull, sql } from 'drizzle-orm';
import { daysBetween } from '../../../core/calendar/queries';
import { runningAccount, usualDays, type AccountItem } from '../../../core/settlement/account';
import { openItems, type journalEntries } from '../../db/schema';
import type { World } from '../../world';

type JournalEvent = (typeof journalEntries.$inferSelect)['event'];

const EVENT_WORDS: Record<JournalEvent, string> = {
	issue: 'Invoice',
	credit: 'Credit note',
	payment: 'Payment',
	refund: 'Money given back',
	reversal: 'Payment undone',
	apply: 'Money in hand used',
	writeOff: 'Written off',
	payout: 'Payout',
	relief: 'VAT relief'
};

/** Every change of what the customer owes, newest last. What was withheld stands with its payment. */
export function customerAccount(world: World, customerId: number) {
	const rows = world.db.all<{
		key: string;
		event: JournalEvent;
		date: string;
		amount: number;
		documentId: number | null;
		number: string | null;
	}>(sql`
		select e.key, e.event, e.date, sum(l.sterling) as amount, e.document_id as documentId, d.number
		from journal_lines l join journal_entries e on e.id = l.entry_id
		left join documents d on d.id = e.document_id
		where l.customer_id = ${customerId} and l.account = 'receivable'
		group by e.id having sum(l.sterling) <> 0 order by e.date, e.id`);
	const items = rows.map((row): AccountItem => ({
		id: row.key,
		date: row.date,
		amount: BigInt(row.amount),
		what: `${EVENT_WORDS[row.event]}${row.number ? ` ${row.number}` : ''}`,
		documentId: row.documentId
	}));
	return runningAccount(items);
}

/** The usual number of days from issue to payment, out of the last settled invoices. */
export function daysToPay(world: World, customerId: number): { days: number | null; of: number } {
	const settled = world.db
		.select({ issueDate: openItems.issueDate, settledOn: openItems.settledOn })
		.from(openItems)
		.where(
			and(
				eq(openItems.customerId, customerId),
				eq(openItems.state, 'paid'),
				isNotNull(openItems.settledOn)
			)
		)
		.orderBy(desc(openItems.settledOn))
		.limit(24)
		.all();
	const days = settled.map((row) => daysBetween(row.issueDate, row.settledOn!));
	return { days: usualDays(days), of: days.length };
}
