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
	/** Of a payment what was withheld, of money given back what went back of that; null: worked out. */
	withheld: Minor | null;
	/** Credits only: the credit note's own deduction. */
	deduction: Minor | null;
	/** The day on which this money was paid, where it came from another invoice or waited in hand: its tax month. */
	paidOn?: PlainDate;
	/** It came from another invoice, or went there. */
	moved?: boolean;
}

export interface SettlementInput {
	total: Minor;
	/** The expected CIS deduction; null where CIS does not apply. */
	deduction: Minor | null;
	entries: SettlementEntry[];
}

export interface Settlement {
	/** In the order of the input: this entry's withheld part (of a refund what goes back), and the position after it. */
	entries: { withheld: Minor; outstanding: Minor }[];
	/** Payments less refunds. */
	cash: Minor;
	/** Less what went back. */
	withheld: Minor;
	outstanding: Minor;
	overpaid: Minor;
	/** What of it is cash, to be given back or used elsewhere; the rest is a deduction that goes with it. */
	inHand: Minor;
	/** The deduction expected now, and what is to come in cash: the total less credits and that deduction. */
	expected: Minor;
	payable: Minor;
	/** Since when nothing has been outstanding; null while something is. */
	settledOn: PlainDate | null;
}
