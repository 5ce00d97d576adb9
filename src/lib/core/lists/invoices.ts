// The list of invoices, credit notes and drafts.
import type { ListSpec } from './types';

const OPEN = { field: 'state', how: 'is', value: 'open,partPaid' } as const;
const FIRST_DUE = { field: 'due', down: false };

export const INVOICES: ListSpec = {
	name: 'invoices',
	words: ['document', 'documents'],
	fields: [
		{ id: 'customer', label: 'customer', head: 'Customer', type: 'text', names: true },
		{ id: 'number', label: 'number', head: 'Number', type: 'text' },
		{
			id: 'kind',
			label: 'kind',
			head: 'Kind',
			type: 'choice',
			choices: { invoice: 'invoice', creditNote: 'credit note' }
		},
		{
			id: 'state',
			label: 'state',
			head: 'State',
			type: 'choice',
			choices: {
				draft: 'draft',
				open: 'open',
				partPaid: 'part paid',
				paid: 'paid',
				credited: 'credited',
				writtenOff: 'written off',
				creditNote: 'credit note'
			},
			sort: false
		},
		{ id: 'issued', label: 'issued', head: 'Issued', type: 'day' },
		{ id: 'due', label: 'due', head: 'Due', type: 'day' },
		{ id: 'late', label: 'days late', head: 'Days late', type: 'number' },
		{ id: 'total', label: 'amount', head: 'Amount, £', type: 'money', sum: true },
		{ id: 'open', label: 'open', head: 'Open, £', type: 'money', sum: true },
		{ id: 'toPay', label: 'still to pay', head: 'To pay, £', type: 'money', sum: true },
		{
			id: 'money',
			label: 'in other money',
			head: 'In other money',
			type: 'text',
			sort: false
		},
		{ id: 'paidOn', label: 'settled', head: 'Settled on', type: 'day' },
		{
			id: 'settled',
			label: 'settlement',
			head: 'Settled',
			type: 'text',
			filter: false,
			sort: false
		},
		{ id: 'sent', label: 'sent', head: 'Sent', type: 'yes' },
		{ id: 'opened', label: 'opened', head: 'Opened', type: 'day', moment: true },
		{ id: 'reminded', label: 'reminded', head: 'Reminded', type: 'day', moment: true },
		{ id: 'disputed', label: 'disputed', head: 'Disputed', type: 'yes' },
		{ id: 'promised', label: 'promised', head: 'Promised for', type: 'day' },
		{ id: 'workKind', label: 'kind of work', head: 'Kind of work', type: 'text' },
		{ id: 'income', label: 'income category', head: 'Income category', type: 'text', sort: false },
		{ id: 'centre', label: 'cost centre', head: 'Cost centre', type: 'text', sort: false },
		{ id: 'label', label: 'label', head: 'Labels', type: 'text', sort: false },
		{
			id: 'customerLabel',
			label: 'customer’s label',
			head: 'Customer’s labels',
			type: 'text',
			sort: false
		},
		{ id: 'reference', label: 'reference', head: 'Reference', type: 'text' },
		{ id: 'order', label: 'order number', head: 'Order number', type: 'text' },
		{ id: 'selfBilled', label: 'self-billed', head: 'Self-billed', type: 'yes', column: false }
	],
	columns: ['customer', 'number', 'issued', 'total', 'settled', 'state'],
	sort: { field: 'issued', down: true },
	actions: true,
	views: [
		{ id: 'all', label: 'All', filters: [] },
		{
			id: 'draft',
			label: 'Drafts',
			filters: [{ field: 'state', how: 'is', value: 'draft' }]
		},
		{ id: 'unpaid', label: 'Unpaid', filters: [OPEN], sort: FIRST_DUE },
		{
			id: 'late',
			label: 'Late',
			filters: [OPEN, { field: 'late', how: 'least', value: '1' }],
			sort: FIRST_DUE
		},
		{
			id: 'unsent',
			label: 'Not sent yet',
			filters: [OPEN, { field: 'sent', how: 'no', value: '' }]
		},
		{ id: 'paid', label: 'Paid', filters: [{ field: 'state', how: 'is', value: 'paid' }] },
		{
			id: 'credited',
			label: 'Credited',
			filters: [{ field: 'state', how: 'is', value: 'credited,creditNote' }]
		}
	]
};
