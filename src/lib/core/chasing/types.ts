// Chase plans, and what is known of the invoices they are about.
import type { PlainDate } from '../calendar/types';
import type { DaySpan } from '../regimes/gb/breathingSpace';
import type { Minor } from '../money/types';

export const CHANNELS = ['mail', 'text', 'letter'] as const;
export type Channel = (typeof CHANNELS)[number];
export const TONES = ['kind', 'plain', 'firm', 'last'] as const;
export type Tone = (typeof TONES)[number];

export interface ChaseStep {
	id: string;
	/** Days after the due day; below zero before it. */
	offset: number;
	channel: Channel;
	tone: Tone;
	subject: string;
	/** With merge fields in braces. */
	text: string;
	/** It is prepared, and a person decides whether it goes: the firm last letter. */
	byHand: boolean;
}

export interface ChasePlan {
	id: number;
	/** In any order; they are taken by their offset. */
	steps: readonly ChaseStep[];
}

export interface ChaseItem {
	documentId: number;
	payerId: number;
	dueDate: PlainDate;
	toPay: Minor;
	/** Whether the customer ever got it. */
	sent: boolean;
	hold: { kind: 'dispute' | 'promise'; until: PlainDate | null } | null;
	/** A card or bank payment of it is under way. */
	paymentPending: boolean;
	/** A bank line that is not accepted yet seems to pay it. */
	bankLineWaiting: boolean;
	/** Steps whose message went out, was skipped, or was overtaken by a later one. */
	done: ReadonlySet<string>;
	/** The largest offset of those: a plan changed midway does not begin again from the kind words. */
	reached: number | null;
}

export interface ChasePayer {
	payerId: number;
	/** Null: this payer is not chased. */
	plan: ChasePlan | null;
	onHold: boolean;
	/** Days on which nothing is asked for: breathing spaces. */
	pauses?: readonly DaySpan[];
	/** When something last came in from them; milliseconds since 1970. */
	lastPaidAt: number | null;
	/** When they were last written to by a plan. */
	lastMessageOn: PlainDate | null;
	items: readonly ChaseItem[];
}

export interface ChaseSettings {
	/** Minutes after midnight between which messages go out. */
	hours: { from: number; to: number };
	/** Nothing goes out within so many hours after a payment. */
	quietHours: number;
	/** Days between two messages to one payer, however many invoices fall due. */
	gapDays: number;
}

export type HeldBecause =
	| 'disputed'
	| 'promised'
	| 'customerOnHold'
	| 'breathingSpace'
	| 'notSent'
	| 'paymentPending'
	| 'bankLineWaiting'
	| 'paidJustNow'
	| 'writtenJustNow';

/** One message to one payer, about everything of theirs that is late or asked for. */
export interface DueMessage {
	payerId: number;
	/** The firmest step due for any of its invoices. */
	step: ChaseStep;
	items: ChaseItem[];
	/** What is done with once it has gone out: each invoice's steps up to the one it has reached. */
	covers: { documentId: number; stepId: string; offset: number; reached: boolean }[];
}

export interface ChaseDay {
	/** These go out by themselves. */
	messages: DueMessage[];
	/** These are due, and a person decides about them. */
	toDecide: DueMessage[];
	held: { documentId: number; payerId: number; because: HeldBecause }[];
}
