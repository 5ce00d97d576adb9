// What came in and what was withheld, month by month, from the journal.
import { sql } from 'drizzle-orm';
import type { PlainDate } from '../../../core/calendar/types';
import type { Reader } from '../../db/connection';

export interface CameIn {
	/** `2026-11`. */
	month: string;
	/** Pence that came in, less what was given back. */
	received: number;
	/** Pence that contractors withheld. */
	withheld: number;
}

/**
 * Months from a day on in which anything came in. Whatever changes what is withheld counts, the use of money in hand and
 * a credit note as well; a payout only moves money from the processor to the bank.
 */
export function cameInByMonth(db: Reader, from: PlainDate): CameIn[] {
	return db.all<CameIn>(sql`
		select substr(e.date, 1, 7) as month,
			sum(case when l.account in ('bank', 'cash', 'cardClearing', 'cardFees') then l.sterling else 0 end) as received,
			sum(case when l.account = 'cisWithheld' then l.sterling else 0 end) as withheld
		from journal_entries e join journal_lines l on l.entry_id = e.id
		where e.date >= ${from} and e.event <> 'payout' group by 1`);
}
