// Columns of open invoices, and those that several of the files that are brought in have.
import type { Column } from '../formats/table';

export const CUSTOMER = {
	field: 'customer',
	label: 'Customer',
	names: ['customer', 'client', 'customer name', 'client name', 'name', 'company', 'contact'],
	required: true
} as const satisfies Column<string>;

export const RETURNED = {
	field: 'returned',
	label: 'VAT returned',
	names: ['vat returned', 'vat returned already', 'vat filed', 'returned']
} as const satisfies Column<string>;

export const INVOICE_COLUMNS = [
	{
		field: 'number',
		label: 'Number',
		names: ['number', 'invoice number', 'invoice no', 'invoice', 'no', 'document number'],
		required: true
	},
	CUSTOMER,
	{
		field: 'issued',
		label: 'Issued',
		names: ['issued', 'issue date', 'invoice date', 'date', 'dated'],
		required: true
	},
	{ field: 'due', label: 'Due', names: ['due', 'due date', 'due on', 'pay by'] },
	{ field: 'taxPoint', label: 'Tax point', names: ['tax point', 'supply date', 'date of supply'] },
	{ field: 'reversed', label: 'Reverse charge', names: ['reverse charge', 'drc', 'reverse'] },
	RETURNED,
	{ field: 'rate', label: 'VAT rate', names: ['vat rate', 'tax rate', 'rate of vat', 'vat code'] },
	{ field: 'vat', label: 'VAT', names: ['vat', 'vat amount', 'tax', 'tax amount'] },
	{
		field: 'net',
		label: 'Net',
		names: ['net', 'net amount', 'subtotal', 'sub total', 'amount without vat', 'excl vat']
	},
	{
		field: 'open',
		label: 'Still open',
		names: ['still open', 'open', 'outstanding', 'balance', 'balance due', 'amount due', 'owed']
	},
	{ field: 'paidOn', label: 'Paid on', names: ['paid on', 'date paid', 'payment date'] },
	{
		field: 'paid',
		label: 'Paid',
		names: ['paid', 'paid so far', 'amount paid', 'payments', 'received']
	},
	{
		field: 'withheld',
		label: 'Withheld',
		names: ['withheld', 'cis withheld', 'deducted so far', 'cis suffered']
	},
	{
		field: 'deduction',
		label: 'Expected deduction',
		names: ['expected deduction', 'cis deduction', 'deduction', 'cis']
	},
	{
		field: 'retentionDue',
		label: 'Retention due',
		names: ['retention due', 'retention date', 'release date']
	},
	{ field: 'retention', label: 'Retention', names: ['retention', 'retention held', 'held back'] },
	{
		field: 'total',
		label: 'Total',
		names: ['total', 'gross', 'total amount', 'invoice total', 'amount', 'incl vat']
	},
	{
		field: 'description',
		label: 'Description',
		names: ['description', 'details', 'what', 'work', 'subject']
	},
	{ field: 'job', label: 'Job', names: ['job', 'job title', 'project'] },
	{ field: 'order', label: 'Order number', names: ['order number', 'po', 'po number', 'order'] },
	{ field: 'reference', label: 'Reference', names: ['reference', 'ref', 'your reference'] },
	{ field: 'currency', label: 'Currency', names: ['currency', 'currency code'] },
	{
		field: 'exchange',
		label: 'Exchange rate',
		names: ['exchange rate', 'rate to gbp', 'fx rate']
	}
] as const satisfies readonly Column<string>[];
export type InvoiceField = (typeof INVOICE_COLUMNS)[number]['field'];
