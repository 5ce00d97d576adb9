// What money that arrived at the bank is matched with, and what is proposed for it.
import type { PlainDate } from '../calendar/types';
import type { Currency } from '../money/currencies';
import type { Minor } from '../money/types';

export interface OpenInvoice {
	documentId: number;
	payerId: number;
	payer: string;
	number: string;
	/** Their order number and reference, which payers like to quote. */
	references: string[];
	dueDate: PlainDate;
	/** What they still have to send: outstanding less what they may deduct. */
	toPay: Minor;
	outstanding: Minor;
	/** In other money: what is to pay, at the document's rate, in pence. */
	currency?: Currency;
	toPaySterling?: Minor;
}

export interface ToMatch {
	id: number;
	date: PlainDate;
	/** Above zero. */
	amount: Minor;
	text: string;
	payer: string;
}

export interface ProposedShare {
	documentId: number;
	number: string;
	/** Of an invoice in other money: in that; the whole line stands against it. */
	amount: Minor;
	currency?: Currency;
	/** Zero where the payer seems to have deducted nothing; null where it is worked out. */
	withheld: Minor | null;
}

export interface Proposal {
	payerId: number;
	payer: string;
	shares: ProposedShare[];
	/** What of it no invoice takes: credit on the account. */
	over: Minor;
	/** 0 to 100. */
	score: number;
	/** Accepted together with the other sure ones. */
	sure: boolean;
	/** Why, in words. */
	reasons: string[];
	/** It is in the books already: the line is tied to that, and nothing is recorded. */
	recorded?: { kind: 'payment' | 'payout'; id: number };
}
