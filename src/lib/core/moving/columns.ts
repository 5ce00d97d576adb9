// Columns that several of the files that are brought in have.
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
