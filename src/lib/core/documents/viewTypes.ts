// What a reader sees of a document, as data.
import type { ColumnId, Look } from '../letterheads/look';
import type { BankAccount } from './types';
import type { Minor } from '../money/types';

export interface ViewRow {
	/** The entry of the price list whose picture it shows; null where it has none. */
	picture: number | null;
	code: string;
	description: string;
	quantity: string;
	unit: string;
	unitPrice: string;
	vat: string;
	discount: string;
	withoutVat: string;
	amount: string;
	/** The amount in minor units, for what is carried from page to page. */
	minor: Minor;
}

export interface ViewColumn {
	id: ColumnId;
	title: string;
	/** It holds figures, and stands to the right. */
	right: boolean;
}

export interface ViewSection {
	heading: string;
	rows: ViewRow[];
	/** Its sum where there is more than one section; empty otherwise. */
	sum: string;
}

export interface ViewAmount {
	label: string;
	amount: string;
	strong?: boolean;
}

/** What a fact is, whatever its label says. */
export type FactId =
	| 'issued'
	| 'taxPoint'
	| 'workFinished'
	| 'due'
	| 'final'
	| 'corrects'
	| 'reason'
	| 'order'
	| 'reference'
	| 'vatNumber'
	| 'utr'
	| 'verification';

export interface ViewFact {
	id: FactId;
	label: string;
	value: string;
}

export interface DocumentView {
	title: string;
	/** What sets it apart from the real thing: a draft, a trial. */
	banner: string;
	number: string;
	/** What stands before an amount: `£`, `€`. */
	sign: string;
	seller: { name: string; lines: string[] };
	customer: string[];
	billTo: string[];
	site: string[];
	facts: ViewFact[];
	/** The letterhead it is written on. */
	look: Look;
	columns: ViewColumn[];
	/** The owner's words above the lines, a paragraph each. */
	above: string[];
	sections: ViewSection[];
	totals: ViewAmount[];
	/** Net and VAT by rate. */
	vatTable: { rate: string; net: string; vat: string }[];
	deduction: ViewAmount[];
	/** Null on what asks for nothing, such as a job sheet. */
	payable: ViewAmount | null;
	statements: string[];
	/** What was agreed about when it is paid; empty where it asks for nothing. */
	terms: string;
	note: string;
	/** The owner's words below everything, its conditions last. */
	below: string[];
	payTitle: string;
	/** After the bank details. */
	payWords: string;
	/** `iban` and `bic` where it is paid from abroad. */
	bank: (BankAccount & { reference: string }) | null;
	/** How it is paid on its page: `by card or from your bank`; empty where it cannot be. */
	online: string;
	due: string;
	/** A drawn signature, as a data address: only on the record of an acceptance, or of what was signed for. */
	signature?: string;
	/** Photos that stand below it, by the number of their file. */
	photos?: { id: number; caption: string }[];
}

/** Wording of the domestic reverse charge on every document under it (VAT Regulations 1995 reg. 14). */
export const REVERSE_CHARGE_WORDING =
	'Reverse charge: customer to account for VAT to HMRC (VATA 1994 s.55A)';

export type Marking = 'issued' | 'copy' | 'draft' | 'trial';

/** Whether it shows its number. */
export const isNumbered = (marking: Marking): boolean => marking === 'issued' || marking === 'copy';
