// The list of customers.
import { CUSTOMER_KIND_NAMES, withinSentence } from '../words';
import type { ListSpec } from './types';

const KINDS = Object.fromEntries(
	Object.entries(CUSTOMER_KIND_NAMES).map(([kind, name]) => [kind, withinSentence(name)])
);
const IN_USE = { field: 'archived', how: 'no', value: '' } as const;

export const CUSTOMERS: ListSpec = {
	name: 'customers',
	words: ['customer', 'customers'],
	fields: [
		{ id: 'name', label: 'name', head: 'Name', type: 'text', names: true },
		{ id: 'kind', label: 'kind', head: 'Kind', type: 'choice', choices: KINDS },
		{ id: 'email', label: 'e-mail', head: 'E-mail', type: 'text' },
		{ id: 'phone', label: 'phone', head: 'Phone', type: 'text' },
		{ id: 'address', label: 'address', head: 'Address', type: 'text' },
		{ id: 'label', label: 'label', head: 'Labels', type: 'text', sort: false },
		{ id: 'open', label: 'open', head: 'Open, £', type: 'money', sum: true },
		{ id: 'late', label: 'late', head: 'Late, £', type: 'money', sum: true },
		{
			id: 'billed',
			label: 'billed, without VAT',
			head: 'Billed, without VAT, £',
			type: 'money',
			sum: true
		},
		{ id: 'last', label: 'last invoice', head: 'Last invoice', type: 'day' },
		{ id: 'added', label: 'added', head: 'Added', type: 'day', moment: true },
		{ id: 'archived', label: 'archived', head: 'Archived', type: 'yes' }
	],
	columns: ['name', 'kind', 'phone', 'open', 'late', 'last'],
	sort: { field: 'name', down: false },
	actions: true,
	views: [
		{ id: 'all', label: 'All', filters: [IN_USE] },
		{
			id: 'owing',
			label: 'Owing',
			filters: [IN_USE, { field: 'open', how: 'least', value: '1' }],
			sort: { field: 'open', down: true }
		},
		{
			id: 'late',
			label: 'Late',
			filters: [IN_USE, { field: 'late', how: 'least', value: '1' }],
			sort: { field: 'late', down: true }
		},
		{
			id: 'archived',
			label: 'Archived',
			filters: [{ field: 'archived', how: 'yes', value: '' }]
		}
	]
};
