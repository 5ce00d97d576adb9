// The figures of an invoice: what goes in, what comes out, and the workings of each amount.
import type { PlainDate } from '../calendar/types';
import type { Currency } from '../money/currencies';
import type { Decimal, Minor } from '../money/types';
import type {
	CisRate,
	ContractClass,
	CustomerKind,
	Decision,
	VatTreatment
} from '../regimes/types';

export const LINE_KINDS = [
	'labour',
	'travel',
	'other',
	'materials',
	'consumables',
	'plantHire',
	'fuel',
	'prefabrication',
	'levy'
] as const;
export type LineKind = (typeof LINE_KINDS)[number];

/** Kinds whose cost leaves the base of the CIS deduction (FA 2004 s.61(1)(a)). */
export const ALLOWABLE_KINDS: ReadonlySet<LineKind> = new Set([
	'materials',
	'consumables',
	'plantHire',
	'fuel',
	'prefabrication'
]);

export type Discount = { percent: Decimal } | { amount: Minor };

export interface LineInput {
	kind: LineKind;
	/** May be negative. */
	quantity: Decimal;
	unitPrice: Decimal;
	/** Null only where the seller is not registered for VAT. */
	vat: VatTreatment | null;
	discount: Discount | null;
	/** What the seller paid others for what goes into this line. */
	cost: Minor | null;
}

export interface InvoiceInput {
	/** The tax point; picks the dated rates. */
	date: PlainDate;
	/** Of every amount but those in `sterling`. */
	currency: Currency;
	/** Sterling for one unit of the currency on the tax point; null in sterling, and where a seller who is not registered needs none. */
	sterlingRate: Decimal | null;
	pricesIncludeVat: boolean;
	vatRounding: 'nearest' | 'down';
	seller: { vatRegistered: boolean };
	customer: {
		kind: CustomerKind;
		vatRegistered: boolean;
		cisRegistered: boolean;
		endUser: boolean;
	};
	contract: ContractClass;
	cisRate: CisRate | null;
	/** Only on a credit note: copied from the document it corrects. */
	reverseCharge: boolean | null;
	lines: LineInput[];
	discount: Discount | null;
	/** Percent held back until later. */
	retention: Decimal | null;
	/** VAT of a rate as it stands on an invoice of other books, which round as they like. */
	statedVat?: Partial<Record<VatTreatment, Minor>>;
}

export interface LineFigures {
	extension: Minor;
	lineDiscount: Minor;
	net: Minor;
	documentDiscount: Minor;
	retention: Minor;
	taxable: Minor;
	/** `taxable` without the VAT that a price including VAT contains. */
	withoutVat: Minor;
}

export interface VatGroup {
	treatment: VatTreatment;
	rate: Decimal | null;
	net: Minor;
	vat: Minor;
	reverseCharge: boolean;
}

/** What is left of an invoice when a part of it is credited. A treatment that is not named has nothing left. */
export interface Left {
	/** The part takes back all of it. */
	all: boolean;
	groups: { treatment: VatTreatment; net: Minor; vat: Minor }[];
	deduction: Minor | null;
}

export interface CisFigures {
	rate: CisRate;
	gross: Minor;
	materials: Minor;
	/** A line's own amount stood in for a cost that was not given. */
	assumed: boolean;
	base: Minor;
	deduction: Minor;
}

/** Net and VAT as they go to the tax office and into the books (VATA 1994 Sch. 6 para. 11). */
export interface SterlingFigures {
	rate: Decimal;
	net: Minor;
	vatCharged: Minor;
	vatReverseCharged: Minor;
}

export interface InvoiceFigures {
	lines: LineFigures[];
	linesTotal: Minor;
	discount: Minor;
	retention: Minor;
	net: Minor;
	vat: VatGroup[];
	vatCharged: Minor;
	vatReverseCharged: Minor;
	total: Minor;
	cis: CisFigures | null;
	payable: Minor;
	/** Null in sterling, and without a rate. */
	sterling: SterlingFigures | null;
	/** One for every amount above, named by its path: `lines.0.net`, `vat.standard.vat`, `total` … */
	workings: Map<string, Working>;
	decisions: {
		reverseCharge: Decision;
		deduction: Decision;
		/** Why each group has its rate. */
		rates: Partial<Record<VatTreatment, Decision>>;
	};
}

/** How the operands of a working make its value; `checkWorking` evaluates each of them again. */
export type Operation =
	| 'product' // round(quantity × price)
	| 'percent' // round(sum of money × percent / 100)
	| 'converted' // round(sum of money × rate)
	| 'taxWithin' // round(gross × rate / (100 + rate))
	| 'sum' // signed sum of money
	| 'limit' // signed sum, kept between `atLeast` and `atMost`
	| 'share' // largest remainder: amount, weight, sum of weights
	| 'roundedDown' // whole pennies of a percentage, with a penny moved between the rates
	| 'given'; // as typed, or nothing at all

export type Operand =
	| { label: string; as: 'money'; value: Minor; sign: 1 | -1; figure?: string }
	| { label: string; as: 'number' | 'percent'; value: Decimal };

export interface Working {
	label: string;
	value: Minor;
	operation: Operation;
	operands: Operand[];
	/** A key of the regime's rules. */
	rule: string;
	limits?: { atLeast?: Minor; atMost?: Minor };
}

/** A wrong input: what was expected and where (`lines.2.quantity`). */
export class FiguresError extends Error {
	constructor(
		message: string,
		readonly path: string
	) {
		super(message);
		this.name = 'FiguresError';
	}
}
