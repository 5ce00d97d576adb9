// A job as the core sees it: what was agreed, what was done, what it cost.
import type { PlainDate } from '../calendar/types';
import type { LineKind } from '../figures/types';
import type { VatTreatment } from '../regimes/types';

export const JOB_STATES = [
	'enquiry',
	'booked',
	'underWay',
	'finished',
	'billed',
	'dropped'
] as const;
export type JobState = (typeof JOB_STATES)[number];

/** How a job stands, as people see it: it is booked once it has a visit, and done with once its bills are paid. */
export const STANDINGS = [
	'enquiry',
	'toBook',
	'booked',
	'underWay',
	'finished',
	'billed',
	'paid',
	'dropped'
] as const;
export type Standing = (typeof STANDINGS)[number];

export const STANDING_NAMES: Record<Standing, string> = {
	enquiry: 'Enquiry',
	toBook: 'To book',
	booked: 'Booked',
	underWay: 'Under way',
	finished: 'Finished',
	billed: 'Billed',
	paid: 'Paid',
	dropped: 'Cancelled'
};

/** What an invoice line can bill. */
export const BILLED_TYPES = ['line', 'time', 'cost'] as const;
export type BilledType = (typeof BILLED_TYPES)[number];

export interface BilledPart {
	type: BilledType;
	id: number;
}

/** A line as it was agreed. Amounts are texts as typed and checked: quantities and prices have up to four decimals. */
export interface JobLine {
	id: number;
	kind: LineKind;
	description: string;
	quantity: string;
	unit: string;
	unitPrice: string;
	vat: VatTreatment;
	vatReason: string;
	discount: string;
	cost: string;
	extra: boolean;
	itemId?: number | null;
	/** What it is in reports; empty or absent: nothing in particular. */
	income?: string;
	centre?: string;
}

export interface TimeEntry {
	id: number;
	date: PlainDate;
	person: string;
	/** Null while the clock runs. */
	minutes: number | null;
	rate: string;
	hourlyCost: string;
	chargeable: boolean;
	note: string;
}

export interface JobCost {
	id: number;
	date: PlainDate;
	kind: LineKind;
	description: string;
	quantity: string;
	unit: string;
	unitCost: string;
	markUp: string;
	unitPrice: string;
	vat: VatTreatment;
	vatReason: string;
	chargeable: boolean;
	itemId?: number | null;
	/** Percent of VAT that goes on top of cost and mark-up, where the job's prices include VAT. */
	plusVat?: string;
}

export interface JobWork {
	lines: JobLine[];
	time: TimeEntry[];
	costs: JobCost[];
}
