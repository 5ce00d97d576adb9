// The list of jobs.
import { STANDING_NAMES } from '../jobs/types';
import type { ListSpec } from './types';

export const JOBS: ListSpec = {
	name: 'jobs',
	words: ['job', 'jobs'],
	fields: [
		{ id: 'title', label: 'title', head: 'Job', type: 'text', names: true },
		{ id: 'number', label: 'number', head: 'Number', type: 'text' },
		{ id: 'customer', label: 'customer', head: 'Customer', type: 'text' },
		{ id: 'site', label: 'site', head: 'Site', type: 'text' },
		{
			id: 'standing',
			label: 'state',
			head: 'State',
			type: 'choice',
			choices: STANDING_NAMES,
			sort: false
		},
		{ id: 'workKind', label: 'kind of work', head: 'Kind of work', type: 'text' },
		{ id: 'label', label: 'label', head: 'Labels', type: 'text', sort: false },
		{ id: 'begun', label: 'begun', head: 'Begun', type: 'day', moment: true },
		{ id: 'visit', label: 'next visit', head: 'Next visit', type: 'day' },
		{ id: 'finished', label: 'finished', head: 'Finished', type: 'day' },
		{
			id: 'billed',
			label: 'billed, without VAT',
			head: 'Billed, without VAT, £',
			type: 'money',
			sum: true
		},
		{ id: 'fixed', label: 'priced as agreed', head: 'Price agreed', type: 'yes' }
	],
	columns: ['title', 'customer', 'workKind', 'standing', 'finished', 'billed'],
	sort: { field: 'number', down: true },
	actions: true,
	views: [
		{
			id: 'all',
			label: 'All',
			filters: [{ field: 'standing', how: 'not', value: 'dropped' }]
		},
		{
			id: 'going',
			label: 'Going on',
			filters: [{ field: 'standing', how: 'is', value: 'toBook,booked,underWay' }]
		},
		{
			id: 'toBill',
			label: 'Finished, not billed',
			filters: [{ field: 'standing', how: 'is', value: 'finished' }],
			sort: { field: 'finished', down: false }
		},
		{
			id: 'done',
			label: 'Billed',
			filters: [{ field: 'standing', how: 'is', value: 'billed,paid' }]
		}
	]
};
