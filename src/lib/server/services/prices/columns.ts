// The columns of a price list as a file.
import type { Column } from '../../../core/formats/table';

export const PRICE_COLUMNS = [
	{
		field: 'code',
		label: 'Code',
		names: ['code', 'sku', 'ref', 'reference', 'part number', 'item code', 'product code', 'number']
	},
	{
		field: 'name',
		label: 'Name',
		names: ['name', 'item', 'product', 'description', 'title'],
		required: true
	},
	{
		field: 'text',
		label: 'Text for the customer',
		names: ['text', 'text for the customer', 'details', 'long description', 'description']
	},
	{ field: 'kind', label: 'Kind', names: ['kind', 'type'] },
	{ field: 'unit', label: 'Unit', names: ['unit', 'uom', 'per', 'unit of measure', 'pack'] },
	{
		field: 'unitPrice',
		label: 'Price',
		names: ['price', 'unit price', 'selling price', 'sell', 'rrp', 'rate']
	},
	{
		field: 'withVat',
		label: 'Price with VAT',
		names: ['price with vat', 'with vat', 'vat included', 'includes vat', 'inc vat', 'vat in price']
	},
	{
		field: 'cost',
		label: 'Cost to you',
		names: [
			'cost',
			'cost to you',
			'cost price',
			'buy',
			'trade price',
			'trade',
			'net price',
			'your price'
		]
	},
	{ field: 'category', label: 'Category', names: ['category', 'group', 'department', 'range'] }
] as const satisfies readonly Column<string>[];

export type PriceField = (typeof PRICE_COLUMNS)[number]['field'];
export type PriceMapping = Partial<Record<PriceField, number>>;
