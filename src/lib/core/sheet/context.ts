// What a sheet is read against: the two parties, the day, and the dates that follow.
import type { Terms } from '../calendar/terms';
import type { PlainDate } from '../calendar/types';
import type { CustomerRecord, SellerRecord } from '../parties';
import type { TaxPoint } from '../regimes/gb/taxPoint';

export interface SheetContext {
	seller: SellerRecord;
	customer: CustomerRecord | null;
	today: PlainDate;
	/** Set on a credit note: copied from the invoice it corrects. */
	corrects?: { taxPoint: PlainDate; reverseCharge: boolean };
	/** Set on the release of a retention: decided as on the invoices that held it back. */
	follows?: { reverseCharge: boolean };
}

export interface SheetDates {
	issueDate: PlainDate;
	workFinished: PlainDate;
	taxPoint: TaxPoint;
	dueDate: PlainDate;
	terms: Terms;
}
