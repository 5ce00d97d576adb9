// What the journal has of deductions, by the day the contractor paid.
import { sql } from 'drizzle-orm';
import type { Reader } from '../../src/lib/server/db/connection';

export function withheldByMonth(db: Reader): Record<string, number> {
	return Object.fromEntries(
		db
			.all<{ day: string; amount: number }>(
				sql`select coalesce(l.paid_on, e.date) as day, sum(l.amount) as amount
				from journal_lines l join journal_entries e on e.id = l.entry_id
				where l.account = 'cisWithheld' group by 1 having sum(l.amount) <> 0`
			)
			.map(({ day, amount }) => [day, amount])
	);
}
