// The list of job sheets.
import type { ListSpec } from './types';

export const SHEETS: ListSpec = {
	name: 'sheets',
	words: ['job sheet', 'job sheets'],
	fields: [
		{ id: 'number', label: 'number', head: 'Number', type: 'text', names: true },
		{ id: 'title', label: 'job', head: 'Job', type: 'text' },
		{ id: 'customer', label: 'customer', head: 'Customer', type: 'text' },
		{ id: 'finished', label: 'finished', head: 'Finished', type: 'day' },
		{ id: 'signed', label: 'signed', head: 'Signed', type: 'yes' },
		{ id: 'signedBy', label: 'signed by', head: 'Signed by', type: 'text' },
		{ id: 'signedAt', label: 'signed on', head: 'Signed on', type: 'day', moment: true },
		{ id: 'sent', label: 'sent', head: 'Sent', type: 'yes' }
	],
	columns: ['number', 'title', 'customer', 'finished', 'signedBy', 'sent'],
	sort: { field: 'finished', down: true },
	views: [
		{ id: 'all', label: 'All', filters: [] },
		{ id: 'unsigned', label: 'Not signed', filters: [{ field: 'signed', how: 'no', value: '' }] }
	]
};
