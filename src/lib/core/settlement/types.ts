// What an invoice is settled by.
import type { PlainDate } from '../calendar/types';
import type { Minor } from '../money/types';

export const ENTRY_TYPES = ['payment', 'credit', 'writeOff', 'refund'] as const;
export type EntryType = (typeof ENTRY_TYPES)[number];

export interface SettlementEntry {
	date: PlainDate;
	type: EntryType;
	/** Above zero. */
	amount: Minor;
	/** Payments only: what the payer stated it withheld; null where it is to be worked out. */
	withheld: Minor | null;
	/** Credits only: the credit note's own deduction. */
	deduction: Minor | null;
}

export interface SettlementInput {
	total: Minor;
	/** The expected CIS deduction; null where CIS does not apply. */
	deduction: Minor | null;
	entries: SettlementEntry[];
}

export interface Settlement {
	/** In the order of the input: this entry's withheld part, and the position after it in date order. */
	entries: { withheld: Minor; outstanding: Minor }[];
	/** Payments less refunds. */
	cash: Minor;
	withheld: Minor;
	outstanding: Minor;
	overpaid: Minor;
	/** Since when nothing has been outstanding; null while something is. */
	settledOn: PlainDate | null;
}
