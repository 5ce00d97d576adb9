// The list of costs: what was bought.
import { CATEGORY_NAMES } from '../costs/types';
import { withinSentence } from '../words';
import type { ListSpec } from './types';

const CATEGORIES = Object.fromEntries(
	Object.entries(CATEGORY_NAMES).map(([id, { name }]) => [id, withinSentence(name)])
);

export const COSTS: ListSpec = {
	name: 'costs',
	words: ['cost', 'costs'],
	fields: [
		{ id: 'what', label: 'what', head: 'What', type: 'text', names: true },
		{ id: 'date', label: 'date', head: 'Date', type: 'day' },
		{ id: 'supplier', label: 'supplier', head: 'From', type: 'text' },
		{ id: 'number', label: 'their number', head: 'Their number', type: 'text' },
		{
			id: 'kind',
			label: 'kind',
			head: 'Kind',
			type: 'choice',
			choices: { bill: 'bill', credit: 'credit', mileage: 'mileage' }
		},
		{ id: 'category', label: 'for', head: 'For', type: 'choice', choices: CATEGORIES },
		{ id: 'centre', label: 'cost centre', head: 'Cost centre', type: 'text' },
		{ id: 'job', label: 'job', head: 'Job', type: 'text' },
		{ id: 'net', label: 'without VAT', head: 'Without VAT, £', type: 'money', sum: true },
		{ id: 'vat', label: 'VAT', head: 'VAT, £', type: 'money', sum: true },
		{ id: 'gross', label: 'in all', head: 'In all, £', type: 'money', sum: true },
		{ id: 'reclaim', label: 'VAT reclaimed', head: 'VAT reclaimed', type: 'yes' },
		{ id: 'paid', label: 'paid', head: 'Paid', type: 'day' },
		{ id: 'unpaid', label: 'not paid yet', head: 'Not paid yet', type: 'yes', column: false },
		{ id: 'receipt', label: 'receipt', head: 'Receipt', type: 'yes' },
		{ id: 'charged', label: 'charged on', head: 'Charged on', type: 'yes' }
	],
	columns: ['what', 'date', 'supplier', 'category', 'job', 'gross', 'paid'],
	sort: { field: 'date', down: true },
	actions: true,
	views: [
		{ id: 'all', label: 'All', filters: [] },
		{
			id: 'unpaid',
			label: 'Not paid yet',
			filters: [{ field: 'unpaid', how: 'yes', value: '' }],
			sort: { field: 'date', down: false }
		},
		{
			id: 'bare',
			label: 'Without a receipt',
			filters: [
				{ field: 'receipt', how: 'no', value: '' },
				{ field: 'kind', how: 'not', value: 'mileage' }
			]
		},
		{ id: 'mileage', label: 'Mileage', filters: [{ field: 'kind', how: 'is', value: 'mileage' }] }
	]
};
