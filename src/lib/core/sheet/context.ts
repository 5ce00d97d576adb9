// What a sheet is read against: the two parties, the day, and the dates that follow.
import type { Terms } from '../calendar/terms';
import type { PlainDate } from '../calendar/types';
import type { Look } from '../letterheads/look';
import type { CustomerRecord, SellerRecord } from '../parties';
import type { Exchange, ExchangeRate } from '../money/exchange';
import type { SheetAbout } from './types';
import type { TaxPoint } from '../regimes/gb/taxPoint';

export interface SheetContext {
	seller: SellerRecord;
	customer: CustomerRecord | null;
	today: PlainDate;
	/** What it is written on, and the kind of work it is; absent: the standard look, and no kind. */
	dress?: Dress;
	/** What other money is worth, from the table. */
	rates?: readonly ExchangeRate[];
	/** Decided before: when it was issued, or on the invoice it corrects. */
	exchange?: Exchange;
	/** It was issued: what was decided then is not decided anew. */
	frozen?: true;
	/** Set on a credit note: copied from the invoice it corrects. */
	corrects?: { taxPoint: PlainDate; reverseCharge: boolean };
	/** What is copied of the documents it follows: a release of those that held back, a correction of its invoice. */
	follows?: Follows;
}

export interface Dress {
	look?: Look;
	workKind?: { id: number; name: string };
	/** Codes of the price list's entries, by their id. */
	codes?: Record<string, string>;
}

export interface Follows {
	/** Decided as on them; absent: decided anew. */
	reverseCharge?: boolean;
	/** The invoice a sheet is about. */
	of?: {
		as: SheetAbout['as'];
		number: string;
		issueDate: PlainDate;
		taxPoint: PlainDate;
		workFinished: PlainDate;
	};
}

export interface SheetDates {
	issueDate: PlainDate;
	workFinished: PlainDate;
	taxPoint: TaxPoint;
	dueDate: PlainDate;
	terms: Terms;
}
