// The list of visits.
import type { ListSpec } from './types';

export const VISITS: ListSpec = {
	name: 'visits',
	words: ['visit', 'visits'],
	fields: [
		{ id: 'title', label: 'job', head: 'What', type: 'text', names: true },
		{ id: 'date', label: 'day', head: 'Day', type: 'day' },
		{ id: 'from', label: 'from', head: 'From', type: 'text', sort: false },
		{ id: 'to', label: 'to', head: 'To', type: 'text', sort: false },
		{ id: 'person', label: 'who goes', head: 'Who goes', type: 'text' },
		{ id: 'customer', label: 'customer', head: 'Customer', type: 'text' },
		{ id: 'place', label: 'where', head: 'Where', type: 'text' },
		{ id: 'number', label: 'job number', head: 'Job', type: 'text' },
		{ id: 'done', label: 'done', head: 'Done', type: 'yes' },
		{ id: 'pencil', label: 'pencilled in', head: 'Pencilled in', type: 'yes' },
		{ id: 'told', label: 'customer told', head: 'Customer told', type: 'yes' },
		{ id: 'confirmed', label: 'confirmed by the customer', head: 'Confirmed', type: 'yes' },
		{ id: 'note', label: 'note', head: 'Note', type: 'text', sort: false }
	],
	columns: ['title', 'date', 'from', 'person', 'customer', 'place', 'done'],
	sort: { field: 'date', down: true },
	views: [
		{ id: 'all', label: 'All', filters: [] },
		{
			id: 'coming',
			label: 'To come',
			filters: [{ field: 'done', how: 'no', value: '' }],
			sort: { field: 'date', down: false }
		},
		{
			id: 'untold',
			label: 'Nobody told',
			filters: [
				{ field: 'done', how: 'no', value: '' },
				{ field: 'told', how: 'no', value: '' }
			],
			sort: { field: 'date', down: false }
		}
	]
};
