// An issued document with everything a screen shows of it.
import type { PlainDate } from '../calendar/types';
import type { Minor } from '../money/types';
import type { InvoiceFigures } from '../figures/types';
import type { PromptOffer } from './prompt';
import type { Frozen } from './types';
import type { DocumentView } from './viewTypes';

export interface OpenItem {
	total: Minor;
	/** What the contractor is expected to deduct in all; null where CIS does not apply. */
	deduction: Minor | null;
	cash: Minor;
	withheld: Minor;
	credited: Minor;
	writtenOff: Minor;
	outstanding: Minor;
	overpaid: Minor;
	/** What of that is cash; the rest is a deduction. */
	inHand: Minor;
	state: 'open' | 'partPaid' | 'paid' | 'credited' | 'writtenOff';
}

/** What the Act allows to claim on a late invoice today, with how it comes about. */
export type LateCharge =
	| { missingRate: PlainDate }
	| {
			daysLate: number;
			/** Percent a year. */
			rate: string;
			/** Null where the contract's own terms stand in place of the Act. */
			reference: { from: PlainDate; rate: string } | null;
			/** Those terms. */
			terms: string | null;
			interest: Minor;
			compensation: Minor;
			openWhenDue: Minor;
			spans: { from: PlainDate; to: PlainDate; days: number; outstanding: Minor }[];
			/** Charged by other documents already. */
			charged: Minor;
	  };

export interface PaymentRow {
	id: number;
	date: PlainDate;
	amount: Minor;
	/** What all of the payment came to in pounds. Pence. */
	sterling: number;
	way: 'bank' | 'card' | 'cash' | 'cheque';
	reference: string;
	fee: Minor;
	/** Whether the card processor took it, so that it can be given back there. */
	byProcessor: boolean;
}

export interface MailRow {
	id: number;
	kind:
		| 'invoice'
		| 'creditNote'
		| 'trial'
		| 'receipt'
		| 'paidNotice'
		| 'statement'
		| 'reminder'
		| 'notice'
		| 'quote'
		| 'quoteNews'
		| 'enquiry'
		| 'enquiryNews'
		| 'visit'
		| 'deposit'
		| 'jobSheet'
		| 'signed'
		| 'textReply';
	to: string;
	state: 'queued' | 'sending' | 'sent' | 'failed' | 'unsure' | 'withdrawn';
	lastError: string;
	attempts: number;
	nextAttemptAt: number;
	/** Who of several has not got it. */
	missed: string;
}

export interface TrailEntry {
	id: number;
	at: number;
	who: 'you' | 'customer' | 'axiometer';
	/** Who of those who sign in it was, where it was not whoever reads. */
	by: string;
	what: string;
	detail: string;
}

export interface SheetBeside {
	id: number;
	number: string;
	signedBy: string | null;
	with: boolean;
}

export interface DocumentDetail {
	id: number;
	kind: 'invoice' | 'creditNote';
	number: string;
	customerId: number | null;
	customerName: string;
	frozen: Frozen;
	figures: InvoiceFigures;
	view: DocumentView;
	issueDate: PlainDate;
	dueDate: PlainDate;
	total: Minor;
	link: string;
	/** Null for a credit note. */
	item: OpenItem | null;
	/** What is still to come, the expected deduction left out. */
	toPay: Minor;
	/** The same in pence, at the document's rate. */
	toPaySterling: Minor;
	refunded: Minor;
	payments: PaymentRow[];
	/** Texts that have not gone out, or were refused. */
	texts: {
		id: number;
		to: string;
		state: 'queued' | 'sent' | 'failed' | 'withdrawn';
		attempts: number;
		lastError: string;
	}[];
	files: {
		id: number;
		name: string;
		type: string;
		/** Bytes. */
		size: number;
		goesOut: boolean;
		picture: boolean;
	}[];
	/** Job sheets of the work it bills, and whether each goes out with it. */
	sheets: SheetBeside[];
	/** Whether it can be signed for; who did. */
	maySign: boolean;
	signed: { name: string; position: string; what: string; at: number; drawn: string | null } | null;
	mails: MailRow[];
	trail: TrailEntry[];
	creditedBy: { id: number; number: string | null; frozen: Frozen }[];
	corrects: { id: number; number: string | null } | null;
	claim: LateCharge | null;
	/** What it offers for paying in time, and whether that was taken. */
	prompt: (PromptOffer & { taken: boolean }) | null;
	/** Disputes about its card payments, the newest first. */
	cardDisputes: {
		id: number;
		amount: number;
		reason: string;
		respondBy: PlainDate;
		state: 'open' | 'answered' | 'won' | 'lost';
	}[];
	/** The two payments by which it was paid twice; null: it was not. */
	twice: [PaymentRow, PaymentRow] | null;
	/** What the payer has in hand that could pay it. */
	inHand: Minor;
	/** Where a receipt would go. */
	payerMail: string;
	today: PlainDate;
}
