// What the page of a quote shows its owner.
import type { PlainDate } from '../calendar/types';
import type { CancelRight } from '../regimes/gb/consumer';

export interface QuoteDetail {
	id: number;
	number: string;
	title: string;
	state:
		| 'draft'
		| 'sent'
		| 'expired'
		| 'accepted'
		| 'declined'
		| 'withdrawn'
		| 'cancelled'
		| 'discarded';
	customer: { id: number | null; name: string };
	household: boolean;
	validUntil: PlainDate;
	sentAt: number | null;
	openedAt: number | null;
	/** It is not reminded of. */
	quiet: boolean;
	reason: string;
	/** Pence. */
	total: number;
	lowest: number | null;
	highest: number | null;
	/** The version that is out. */
	sent: number;
	link: string;
	token: string;
	/** It was written on since. */
	changed: boolean;
	version: number;
	versions: { n: number; sentAt: number; total: number }[];
	trail: { id: number; at: number; what: string; detail: string; who: string | null }[];
	questions: {
		id: number;
		at: number;
		question: string;
		answer: string;
		answeredAt: number | null;
	}[];
	right: CancelRight;
	form: string[];
	accepted: {
		name: string;
		position: string;
		orderNumber: string;
		way: 'page' | 'spot' | 'byHand';
		on: PlainDate;
		at: number;
		total: number;
		signature: string | null;
		hasRecord: boolean;
		begin: boolean;
		cancel: PlainDate | 'open' | null;
		cancelledOn: PlainDate | null;
		cancelledHow: string;
	} | null;
	share: {
		paid: string;
		by: PlainDate;
		owes: boolean;
		lines: { id: number; description: string; agreed: string }[];
	} | null;
	deposit: {
		amount: number;
		/** What a contractor keeps back of it. */
		deduction: number;
		state: 'asked' | 'paid' | 'invoiced' | 'withdrawn';
		documentId: number | null;
	} | null;
	plan: { title: string; amount: number }[];
	job: { id: number; number: string; state: string } | null;
	sending: { to: string; subject: string; text: string } | null;
}
