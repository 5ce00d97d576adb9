// When a supply is made for VAT (VATA 1994 s.6): from the day the work ended and the day of the invoice.
import { addDays } from '../../calendar/manipulation';
import type { PlainDate } from '../../calendar/types';

/** VATA 1994 s.6(5): an invoice within this many days moves the tax point to its own date. */
const DAYS_TO_INVOICE = 14;

export interface TaxPoint {
	date: PlainDate;
	basis: 'invoiceFirst' | 'invoiceInTime' | 'workFinished';
	reason: string;
	reference: string;
	/** The last day on which an invoice still moves the tax point. */
	lastDayInTime: PlainDate;
}

export function decideTaxPoint(workFinished: PlainDate, issued: PlainDate): TaxPoint {
	const lastDayInTime = addDays(workFinished, DAYS_TO_INVOICE);
	if (issued < workFinished) {
		return {
			date: issued,
			basis: 'invoiceFirst',
			reason: 'The invoice comes before the work is finished, so it makes the tax point.',
			reference: 'VATA 1994 s.6(4)',
			lastDayInTime
		};
	}
	if (issued <= lastDayInTime) {
		return {
			date: issued,
			basis: 'invoiceInTime',
			reason: 'Invoiced within 14 days of finishing, so the tax point is the invoice date.',
			reference: 'VATA 1994 s.6(5)',
			lastDayInTime
		};
	}
	return {
		date: workFinished,
		basis: 'workFinished',
		reason:
			'Invoiced more than 14 days after finishing, so the tax point stays where the work ended.',
		reference: 'VATA 1994 s.6(3)',
		lastDayInTime
	};
}
