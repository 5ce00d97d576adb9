// What is frozen when a document is issued: both parties, the sheet, and the figures.
import type { PlainDate } from '../calendar/types';
import type { CisRate, ContractClass, CustomerKind, VatTreatment } from '../regimes/types';
import type { SupplyPoint, TaxPointRule } from '../regimes/gb/taxPoints';
import type { Exchange } from '../money/exchange';
import type { Look } from '../letterheads/look';
import type { Currency } from '../money/currencies';
import type { PayWays } from '../payWays';
import type { Sheet, SheetAbout } from '../sheet/types';

/** One day on which a part of a document's supply took place (VATA 1994 s.6). Pence sterling; a credit note's are taken back. */
export interface TaxPointRecord {
	date: PlainDate;
	rule: TaxPointRule;
	because: SupplyPoint['because'];
	net: number;
	vatCharged: number;
	vatReverseCharged: number;
	/** Whether the seller was registered on that day. */
	vat: boolean;
}

export interface BankAccount {
	accountName: string;
	sortCode: string;
	accountNumber: string;
	/** As payers abroad need it; absent or empty: not known. */
	iban?: string;
	bic?: string;
}

export interface SellerFacts {
	tradingName: string;
	ownerName: string;
	address: string;
	email: string;
	phone: string;
	vatRegistered: boolean;
	vatNumber: string;
	utr: string;
	cisSubcontractor: boolean;
	bank: BankAccount;
	terms: { days: number; endOfMonth: boolean };
}

export interface CustomerFacts {
	id: number;
	kind: CustomerKind;
	name: string;
	email: string;
	address: string;
	/** What is written for it is in this money; absent: pounds. */
	currency?: Currency;
	terms: { days: number; endOfMonth: boolean } | null;
	orderNumberRequired: boolean;
	/** A household that acts in the way of trade, such as a landlord: no consumer (SI 2013/3134 reg. 4). */
	inTrade?: boolean;
	standing: TaxStanding;
	billTo: { id: number; name: string; address: string; email: string } | null;
	/** How it may pay; absent: in every way. */
	ways?: PayWays | null;
	sites: { id: number; name: string; address: string }[];
}

export interface TaxStanding {
	from: PlainDate | null;
	vatRegistered: boolean;
	vatNumber: string;
	cisRegistered: boolean;
	cisRate: CisRate | null;
	verificationNumber: string;
	endUser: boolean;
	endUserStatement: string;
	endUserDate: PlainDate | null;
}

export interface Frozen {
	kind: 'invoice' | 'creditNote';
	seller: SellerFacts;
	customer: CustomerFacts;
	sheet: Sheet;
	issueDate: PlainDate;
	taxPoint: PlainDate;
	workFinished: PlainDate;
	dueDate: PlainDate;
	contract: ContractClass;
	/**
	 * What it came to when it was issued, for whoever looks from outside: net, VAT charged, VAT the customer accounts for,
	 * total, deduction, retention. Pence.
	 */
	sums?: (number | null)[];
	/**
	 * Where it is in other money: the rate of its tax point, and what that makes of net and VAT. Pence (VATA 1994 Sch. 6
	 * para. 11).
	 */
	exchange?: Exchange & { net: number; vatCharged: number; vatReverseCharged: number };
	/** When what it bills took place; absent on documents from before this was kept. */
	taxPoints?: TaxPointRecord[];
	/** Copied from the invoices it follows: whose retention it releases, or whose price it raises. */
	reverseCharge?: boolean;
	/** The number and date of the invoice a credit note corrects, and why. */
	corrects: Correction | null;
	/** The letterhead it was written on; absent: the standard one, as it came with Axiometer. */
	look?: Look;
	/** The owner's own kind of work, as it was called. */
	workKind?: { id: number; name: string };
	/** Of the entries of the price list its lines came from, where the letterhead shows them. */
	codes?: Record<string, string>;
	/** The invoice it stands in place of, or whose price it raises, and why. */
	about?: { as: SheetAbout['as']; number: string; issueDate: PlainDate; reason: string };
}

export interface Correction {
	number: string;
	issueDate: PlainDate;
	reason: string;
	reverseCharge: boolean;
	/** What of the invoice's lines it takes back; absent where it takes back all of an invoice at once. */
	parts?: CreditedPart[];
	/** What was left of the invoice before it: a part is rounded within it, and the last part is what is left. */
	left?: FrozenLeft;
}

/** What a credit note takes back of one line of the invoice. Pence. */
export interface CreditedPart {
	/** Of the line among the invoice's lines, from 0. */
	position: number;
	/** How many of its units; null where only its price goes down. */
	quantity: string | null;
	/** Of the line's net, of what was held back of it, and of what was due on it then. */
	net: number;
	retention: number;
	taxable: number;
	/** Of what counted as its cost; null where none was known. */
	cost: number | null;
	/** The work goes back to its job, to be billed again. */
	again: boolean;
}

export interface FrozenLeft {
	/** It takes back all of that. */
	all: boolean;
	groups: { treatment: VatTreatment; net: number; vat: number }[];
	deduction: number | null;
}
