// The list of quotes and estimates.
import type { ListSpec } from './types';

export const QUOTES: ListSpec = {
	name: 'quotes',
	words: ['quote', 'quotes'],
	fields: [
		{ id: 'title', label: 'what', head: 'What', type: 'text', names: true },
		{ id: 'number', label: 'number', head: 'Number', type: 'text' },
		{ id: 'customer', label: 'customer', head: 'Customer', type: 'text' },
		{
			id: 'state',
			label: 'state',
			head: 'State',
			type: 'choice',
			choices: {
				draft: 'draft',
				sent: 'out',
				expired: 'expired',
				accepted: 'accepted',
				declined: 'declined',
				withdrawn: 'withdrawn',
				cancelled: 'cancelled'
			}
		},
		{ id: 'total', label: 'amount', head: 'Amount, £', type: 'money', sum: true },
		{ id: 'lowest', label: 'at the least', head: 'At the least, £', type: 'money', sum: true },
		{ id: 'highest', label: 'at the most', head: 'At the most, £', type: 'money', sum: true },
		{ id: 'sent', label: 'sent', head: 'Sent', type: 'day', moment: true },
		{ id: 'opened', label: 'opened', head: 'Opened', type: 'day', moment: true },
		{ id: 'until', label: 'holds until', head: 'Holds until', type: 'day' },
		{ id: 'answered', label: 'answered', head: 'Answered', type: 'day', moment: true },
		{ id: 'acceptedBy', label: 'accepted by', head: 'Accepted by', type: 'text' },
		{
			id: 'way',
			label: 'accepted how',
			head: 'Accepted how',
			type: 'choice',
			choices: { page: 'on its page', spot: 'on the spot', byHand: 'written down' }
		},
		{ id: 'agreed', label: 'agreed on', head: 'Agreed on', type: 'day' },
		{ id: 'question', label: 'question open', head: 'Question open', type: 'yes' },
		{ id: 'reason', label: 'reason', head: 'Reason', type: 'text', sort: false },
		{ id: 'workKind', label: 'kind of work', head: 'Kind of work', type: 'text' },
		{ id: 'source', label: 'how they found us', head: 'How they found us', type: 'text' },
		{ id: 'job', label: 'job', head: 'Job', type: 'text' }
	],
	columns: ['title', 'number', 'customer', 'total', 'sent', 'until', 'state'],
	sort: { field: 'sent', down: true },
	views: [
		{ id: 'all', label: 'All', filters: [] },
		{ id: 'draft', label: 'Drafts', filters: [{ field: 'state', how: 'is', value: 'draft' }] },
		{
			id: 'out',
			label: 'Out',
			filters: [{ field: 'state', how: 'is', value: 'sent' }],
			sort: { field: 'until', down: false }
		},
		{
			id: 'accepted',
			label: 'Accepted',
			filters: [{ field: 'state', how: 'is', value: 'accepted' }]
		},
		{
			id: 'lost',
			label: 'Not taken',
			filters: [{ field: 'state', how: 'is', value: 'declined,expired,withdrawn,cancelled' }]
		}
	]
};
