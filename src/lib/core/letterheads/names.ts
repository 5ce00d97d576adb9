// What the parts of a letterhead are called where they are chosen.
import type { ColumnId, Detail, DocumentSort, LINE_DETAILS, Typeface } from './look';

export const DETAIL_NAMES: Record<Detail, string> = {
	phone: 'Your phone number',
	email: 'Your e-mail address',
	utr: 'Your UTR, for contractors',
	verification: 'CIS verification number, for contractors',
	order: 'Their order number',
	reference: 'Reference',
	customerVat: 'Their VAT number',
	site: 'Where the work was done',
	workFinished: 'When the work was finished',
	due: 'Due date beside the number',
	terms: 'Terms and due date below the lines',
	bank: 'Bank details',
	code: 'Code to scan and pay',
	payLink: 'Address of the pay page',
	tradeBody: 'Trade body',
	insurance: 'Insurance'
};

/** How a column is headed; what the currency is stands behind it where it holds amounts. */
export const COLUMN_NAMES: Record<ColumnId, string> = {
	picture: 'Picture',
	code: 'Code',
	description: 'Description',
	quantity: 'Quantity',
	unit: 'Unit',
	price: 'Price',
	discount: 'Discount',
	vat: 'VAT',
	withoutVat: 'Without VAT',
	amount: 'Amount'
};

export const LINE_DETAIL_NAMES: Record<(typeof LINE_DETAILS)[number], string> = {
	lines: 'Each line',
	headings: 'Sums by heading',
	kinds: 'Sums by kind',
	total: 'Total only'
};

export const SORT_NAMES: Record<DocumentSort, string> = {
	invoice: 'Invoice',
	deposit: 'Invoice for a deposit',
	creditNote: 'Credit note',
	debit: 'Debit note',
	selfBilled: 'Self-billed invoice',
	late: 'Late payment charge',
	application: 'Application for payment',
	quote: 'Quote or estimate',
	jobSheet: 'Job sheet'
};

export const TYPEFACE_NAMES: Record<Typeface, string> = {
	grotesque: 'Grotesque',
	plain: 'Plain',
	serif: 'Serif'
};
