// The price list as a list.
import { KIND_NAMES, TREATMENT_NAMES, withinSentence } from '../words';
import type { ListSpec } from './types';

const inWords = (names: Record<string, string>) =>
	Object.fromEntries(Object.entries(names).map(([id, name]) => [id, withinSentence(name)]));
const IN_USE = { field: 'archived', how: 'no', value: '' } as const;

export const PRICES: ListSpec = {
	name: 'prices',
	words: ['entry', 'entries'],
	fields: [
		{ id: 'name', label: 'name', head: 'Entry', type: 'text', names: true },
		{ id: 'code', label: 'code', head: 'Code', type: 'text' },
		{ id: 'kind', label: 'kind', head: 'Kind', type: 'choice', choices: inWords(KIND_NAMES) },
		{ id: 'category', label: 'category', head: 'Category', type: 'text' },
		{ id: 'unit', label: 'unit', head: 'Unit', type: 'text' },
		{ id: 'price', label: 'price', head: 'Price, £', type: 'money' },
		{ id: 'withVat', label: 'price with VAT', head: 'With VAT', type: 'yes' },
		{ id: 'cost', label: 'cost', head: 'Costs you, £', type: 'money' },
		{ id: 'vat', label: 'VAT', head: 'VAT', type: 'choice', choices: inWords(TREATMENT_NAMES) },
		{ id: 'kit', label: 'a kit', head: 'Kit', type: 'yes' },
		{ id: 'used', label: 'times used', head: 'Used', type: 'number' },
		{ id: 'changed', label: 'changed', head: 'Changed', type: 'day', moment: true },
		{ id: 'archived', label: 'archived', head: 'Archived', type: 'yes' }
	],
	columns: ['name', 'code', 'category', 'unit', 'price', 'cost', 'used'],
	sort: { field: 'name', down: false },
	actions: true,
	views: [
		{ id: 'all', label: 'All', filters: [IN_USE] },
		{
			id: 'kits',
			label: 'Kits',
			filters: [IN_USE, { field: 'kit', how: 'yes', value: '' }]
		},
		{
			id: 'unused',
			label: 'Never used',
			filters: [IN_USE, { field: 'used', how: 'most', value: '0' }]
		},
		{
			id: 'archived',
			label: 'Archived',
			filters: [{ field: 'archived', how: 'yes', value: '' }]
		}
	]
};
