// The list of enquiries.
import type { ListSpec } from './types';

export const ENQUIRIES: ListSpec = {
	name: 'enquiries',
	words: ['enquiry', 'enquiries'],
	fields: [
		{ id: 'name', label: 'who', head: 'Who', type: 'text', names: true },
		{ id: 'what', label: 'what', head: 'What', type: 'text', sort: false },
		{ id: 'place', label: 'where', head: 'Where', type: 'text' },
		{ id: 'wanted', label: 'by when', head: 'By when', type: 'text' },
		{ id: 'source', label: 'how they found us', head: 'How they found us', type: 'text' },
		{ id: 'workKind', label: 'kind of work', head: 'Kind of work', type: 'text' },
		{ id: 'came', label: 'came', head: 'Came', type: 'day', moment: true },
		{ id: 'moved', label: 'last answer', head: 'Last answer', type: 'day', moment: true },
		{
			id: 'way',
			label: 'through',
			head: 'Through',
			type: 'choice',
			choices: { hand: 'your hand', page: 'your page' }
		},
		{
			id: 'state',
			label: 'state',
			head: 'State',
			type: 'choice',
			choices: {
				open: 'not answered',
				answered: 'answered',
				visit: 'to look at',
				quoted: 'quoted',
				job: 'a job',
				closed: 'came to nothing'
			}
		},
		{ id: 'reason', label: 'reason', head: 'Reason', type: 'text', sort: false }
	],
	columns: ['name', 'what', 'workKind', 'source', 'came', 'state'],
	sort: { field: 'came', down: true },
	views: [
		{
			id: 'live',
			label: 'Going on',
			filters: [{ field: 'state', how: 'is', value: 'open,answered,visit,quoted' }]
		},
		{ id: 'all', label: 'All', filters: [] },
		{ id: 'open', label: 'Not answered', filters: [{ field: 'state', how: 'is', value: 'open' }] },
		{
			id: 'closed',
			label: 'Came to nothing',
			filters: [{ field: 'state', how: 'is', value: 'closed' }]
		}
	]
};
