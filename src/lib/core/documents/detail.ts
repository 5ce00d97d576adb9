// An issued document with everything a screen shows of it. Amounts in pence.
import type { PlainDate } from '../calendar/types';
import type { InvoiceFigures } from '../figures/types';
import type { Frozen } from './types';
import type { DocumentView } from './viewTypes';

export interface OpenItem {
	total: number;
	/** What the contractor is expected to deduct in all; null where CIS does not apply. */
	deduction: number | null;
	cash: number;
	withheld: number;
	credited: number;
	writtenOff: number;
	outstanding: number;
	overpaid: number;
	state: 'open' | 'partPaid' | 'paid' | 'credited' | 'writtenOff';
}

/** What the Act allows to claim on a late invoice today, with how it comes about. Amounts in pence. */
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
			interest: number;
			compensation: number;
			openWhenDue: number;
			spans: { from: PlainDate; to: PlainDate; days: number; outstanding: number }[];
			/** Charged by other documents already. */
			charged: number;
	  };

export interface PaymentRow {
	id: number;
	date: PlainDate;
	amount: number;
	way: 'bank' | 'card' | 'cash' | 'cheque';
	reference: string;
	fee: number;
	/** Whether the card processor took it, so that it can be given back there. */
	byProcessor: boolean;
}

export interface MailRow {
	id: number;
	kind: 'invoice' | 'creditNote' | 'trial' | 'receipt' | 'paidNotice' | 'statement' | 'reminder';
	to: string;
	state: 'queued' | 'sending' | 'sent' | 'failed' | 'unsure' | 'withdrawn';
	lastError: string;
	attempts: number;
	nextAttemptAt: number;
}

export interface TrailEntry {
	id: number;
	at: number;
	who: 'you' | 'customer' | 'axiometer';
	what: string;
	detail: string;
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
	total: number;
	link: string;
	/** Null for a credit note. */
	item: OpenItem | null;
	/** What is still to come, the expected deduction left out. */
	toPay: number;
	refunded: number;
	payments: PaymentRow[];
	mails: MailRow[];
	trail: TrailEntry[];
	creditedBy: { id: number; number: string | null }[];
	corrects: { id: number; number: string | null } | null;
	claim: LateCharge | null;
	/** What the payer has in hand that could pay it. Pence. */
	inHand: number;
	/** Where a receipt would go. */
	payerMail: string;
	today: PlainDate;
}
