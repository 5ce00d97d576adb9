// A draft exactly as it is typed: text stays text until it is read, so that nothing typed is lost.
import type { PlainDate } from '../calendar/types';
import type { LineKind } from '../figures/types';
import type { PayWays } from '../payWays';
import type { Currency } from '../money/currencies';
import type { BilledPart } from '../jobs/types';
import type { ContractClass, VatTreatment } from '../regimes/types';

/** What a line is in the owner's reports; empty: nothing in particular. */
export interface LineTags {
	income: string;
	centre: string;
}

export interface SheetLine {
	id: string;
	type: 'line';
	kind: LineKind;
	description: string;
	quantity: string;
	unit: string;
	unitPrice: string;
	vat: VatTreatment;
	/** Why the rate is not the standard one: a key of the regime's reasons, or empty. */
	vatReason: string;
	/** `5%` or an amount; empty for none. */
	discount: string;
	cost: string;
	/** The job it belongs to, and what of it the line bills. */
	jobId?: number;
	bills?: BilledPart[];
	/** The part of a stage it bills: the line of the contract, held to it by the stage itself. */
	stageLineId?: number;
	/** The day this line's work was finished, where lines differ: it keeps its own tax point. */
	workDone?: PlainDate;
	/** The entry of the price list it came from. */
	itemId?: number;
	/** Its price there, where that is taken the other way: with VAT, or without. */
	listPrice?: { price: string; withVat: boolean };
	/** On a quote: one option of a group, of which one is taken. */
	choice?: { group: string; option: string };
	/** On a quote: it may be added. */
	extra?: true;
	/** Of what may be added: the customer says how many, up to this. */
	most?: string;
	/** On a quote: priced for now, settled at what it turns out to be. */
	provisional?: true;
	/** How its quantity was measured. */
	measured?: Measured;
	/** The owner's own income category and cost centre, by their names: for reports, never on paper. */
	income?: string;
	centre?: string;
}

/** Lengths as they are typed, in one unit; what is empty takes no part. What is taken off are openings: doors, windows. */
export interface Measured {
	length: string;
	width: string;
	height: string;
	off: { width: string; height: string }[];
}

export interface SheetHeading {
	id: string;
	type: 'heading';
	text: string;
	/** What stands under it is printed as one line that says this. */
	single?: boolean;
}

export type SheetRow = SheetLine | SheetHeading;

export const GROUPINGS = ['headings', 'kinds'] as const;

export interface Sheet {
	customerId: number | null;
	siteId: number | null;
	/** Who gets this bill, where it is neither the customer nor its usual bill-to. */
	billToId?: number;
	/** Asked only for contractors; null until answered. */
	contract: ContractClass | null;
	/** Why a contract has no construction work in it, or next to none, where that could be in doubt. */
	contractReason?: string;
	/** The customer has said in writing, for this contract, that it is an end user or intermediary supplier. */
	endUser?: { statement: string; date: string };
	/** The rate of the day on which the work was finished, although the tax point comes after a change (VATA 1994 s.88). */
	rateOfWork?: boolean;
	/** Empty: the day it is issued. */
	issueDate: string;
	workFinished: string;
	/** Empty: by terms. */
	dueDate: string;
	/** Empty: the customer's, or the owner's. */
	termsDays: string;
	reference: string;
	orderNumber: string;
	note: string;
	/** What its amounts are in; absent: pounds. */
	currency?: Currency;
	/** What one of it is worth in pounds, for this document alone; empty: as the table says. */
	exchange?: { rate: string; source: string };
	pricesIncludeVat: boolean;
	roundVatDown: boolean;
	grouping: (typeof GROUPINGS)[number];
	discount: string;
	retention: string;
	/** Held back until this day; empty where nothing is held back or no day was agreed. */
	retentionDue?: PlainDate | '';
	/** The stage this sheet bills, or the invoice whose retention it releases. */
	stageId?: number;
	releases?: number[];
	/** It asks for money before any work is done. */
	deposit?: true;
	/** It charges for the lateness of another invoice: no supply, and no VAT invoice. */
	charge?: 'late';
	/** What it is about where it corrects an issued invoice: in place of it, or in addition to it for a higher price. */
	about?: SheetAbout;
	/** The contractor wrote it in our name, under its number, by an agreement of this day (VAT Regulations 1995 reg. 13(3)). */
	selfBilled?: { number: string; agreedOn: string };
	/** It was issued before, in other books, and stands open here. */
	opening?: Opening;
	/** Off for paying in time: so many percent, within so many days of the invoice. */
	prompt?: { percent: string; days: string };
	/** What is otherwise on this document alone; absent or empty: as it is elsewhere. */
	own?: OwnWays;
	/** It is a quote, or an estimate. */
	quote?: QuoteTerms;
	/** The owner's own kind of work. */
	workKindId?: number;
	/** The letterhead chosen for this document alone. */
	letterheadId?: number;
	/** All of it was paid on this day, before it was invoiced. */
	paidOn?: PlainDate;
	rows: SheetRow[];
}

export const QUOTE_DETAILS = ['all', 'sections', 'total'] as const;
/** Where the contract is or will be made (SI 2013/3134 reg. 5); `unsettled`: looked at on site, accepted from home. */
export const CONTRACT_PLACES = ['unsettled', 'offPremises', 'distance', 'onPremises'] as const;
export type ContractPlace = (typeof CONTRACT_PLACES)[number];

/** What a quote says beside its lines, as typed. */
export interface QuoteTerms {
	/** A quote binds; an estimate is a best guess. */
	binding: boolean;
	title: string;
	/** How much of its prices is shown. */
	detail: (typeof QUOTE_DETAILS)[number];
	/** For so many days it holds. */
	validDays: string;
	/** When the work could begin, and how long it takes: in words. */
	begin: string;
	duration: string;
	before: string;
	notIncluded: string;
	assumed: string;
	guarantee: string;
	terms: string;
	/** `25%` or an amount, with VAT; empty: none. */
	deposit: string;
	/** What is paid when: percent of it all; the last stage is the rest, whatever it says. */
	stages: { title: string; percent: string }[];
	place: ContractPlace;
	/** The customer called for an urgent repair (reg. 28(1)(e)). */
	urgent: boolean;
	/** A new building, or a conversion that amounts to one (reg. 6). */
	newBuilding: boolean;
}

/** How one document differs from all others, without touching the customer or the settings. */
export interface OwnWays {
	/** Where it goes: the postal address printed on it. */
	address?: string;
	/** For whose attention. */
	contact?: string;
	/** Where the money is to go. */
	bank?: { accountName: string; sortCode: string; accountNumber: string };
	ways?: PayWays;
}

export interface Opening {
	number: string;
	taxPoint: PlainDate;
	/** Its VAT stands in a return that was made already. */
	returned: boolean;
	/** Where other books rounded otherwise: what they have as the VAT of a rate. */
	vat?: Partial<Record<VatTreatment, string>>;
}

export const ABOUT = ['replacement', 'debit'] as const;

export interface SheetAbout {
	as: (typeof ABOUT)[number];
	invoiceId: number;
	/** Printed on it; of a replacement, on the credit note that goes with it. */
	reason: string;
}

/** A change that puts a problem right with one press. */
export type Fix =
	| { label: string; type: 'set'; field: keyof Sheet; value: string | boolean | null }
	| { label: string; type: 'setLine'; rowId: string; field: keyof SheetLine; value: string }
	| { label: string; type: 'focus'; path: string }
	| { label: string; type: 'customer'; field: string }
	/** Asked for right there, and kept in the settings. */
	| { label: string; type: 'business'; asks: Asked };

/** What of the owner's own a document may be the first to need. */
export type Asked = 'vatNumber' | 'utr' | 'bank' | 'names' | 'series';

/** Something that is wrong, or may be. Only `stop` stands in the way of issuing. */
export interface Problem {
	/** `orderNumber`, `rows.<id>.quantity`, `customer.address` … */
	path: string;
	level: 'stop' | 'warning' | 'note';
	message: string;
	fix?: Fix;
	/** Where the rule stands. */
	reference?: string;
	/** Something still missing: said when the document is about to be issued, not while it is typed. */
	atIssue?: true;
}
