// What a tax regime must answer. Regimes stand side by side, one folder each, behind this interface.
import type { PlainDate } from '../calendar/types';
import type { Decimal } from '../money/types';

export const VAT_TREATMENTS = [
	'standard',
	'reduced',
	'zero',
	'exempt',
	'outside',
	'noSupply'
] as const;
export type VatTreatment = (typeof VAT_TREATMENTS)[number];

export const CUSTOMER_KINDS = ['household', 'business', 'contractor'] as const;
export type CustomerKind = (typeof CUSTOMER_KINDS)[number];

export const CONTRACT_CLASSES = ['construction', 'minor', 'none'] as const;
export type ContractClass = (typeof CONTRACT_CLASSES)[number];

export const CIS_RATES = ['0', '20', '30'] as const;
export type CisRate = (typeof CIS_RATES)[number];

/** A rule of law or of computation that a figure follows. */
export interface Rule {
	readonly title: string;
	/** Where it stands, e.g. `VATA 1994 s.55A`. */
	readonly reference: string;
}

/** The facts about both parties and the contract that decide the tax. */
export interface Parties {
	date: PlainDate;
	sellerVatRegistered: boolean;
	customer: {
		kind: CustomerKind;
		vatRegistered: boolean;
		cisRegistered: boolean;
		endUser: boolean;
	};
	contract: ContractClass;
	cisRate: CisRate | null;
	/** Copied from the document a credit note corrects; null on anything else. */
	reverseCharge: boolean | null;
}

/** One fact a decision rests on, and whether it holds. */
export interface Reason {
	holds: boolean;
	text: string;
}

/** A yes or no with its grounds, and what would turn it. */
export interface Decision {
	question: string;
	answer: boolean;
	conclusion: string;
	reasons: Reason[];
	wouldChange: string[];
	rule: string;
}

export interface DatedRate {
	treatment: VatTreatment;
	rate: Decimal;
	from: PlainDate;
	until: PlainDate | null;
}

export interface Regime {
	readonly id: string;
	readonly currency: string;
	readonly rules: Readonly<Record<string, Rule>>;
	/** The dated rate; null where the treatment has no rate; undefined where that day has no row. */
	rateOn(treatment: VatTreatment, date: PlainDate): DatedRate | null | undefined;
	decideReverseCharge(parties: Parties): Decision;
	/** Why a treatment has the rate it has on a day. */
	decideRate(treatment: VatTreatment, date: PlainDate): Decision;
	decideDeduction(parties: Parties): Decision;
}
