// The list of payments that came in.
import { WAY_NAMES, withinSentence } from '../words';
import type { ListSpec } from './types';

const WAYS = Object.fromEntries(
	Object.entries(WAY_NAMES).map(([way, name]) => [way, withinSentence(name)])
);

export const PAYMENTS: ListSpec = {
	name: 'payments',
	words: ['payment', 'payments'],
	fields: [
		{ id: 'payer', label: 'payer', head: 'From', type: 'text', names: true },
		{ id: 'date', label: 'date', head: 'Date', type: 'day' },
		{ id: 'amount', label: 'amount', head: 'Amount, £', type: 'money', sum: true },
		{ id: 'way', label: 'way', head: 'How', type: 'choice', choices: WAYS },
		{ id: 'reference', label: 'reference', head: 'Reference', type: 'text' },
		{ id: 'paid', label: 'paid for', head: 'For', type: 'text', sort: false },
		{ id: 'inHand', label: 'not used yet', head: 'In hand, £', type: 'money', sum: true },
		{ id: 'fee', label: 'fee', head: 'Fee, £', type: 'money', sum: true },
		{ id: 'given', label: 'given back', head: 'Given back, £', type: 'money', sum: true },
		{ id: 'recorded', label: 'recorded', head: 'Recorded', type: 'day', moment: true }
	],
	columns: ['payer', 'date', 'way', 'paid', 'amount', 'inHand'],
	sort: { field: 'date', down: true },
	views: [
		{ id: 'all', label: 'All', filters: [] },
		{
			id: 'card',
			label: 'By card',
			filters: [{ field: 'way', how: 'is', value: 'card' }]
		},
		{
			id: 'inHand',
			label: 'Not used yet',
			filters: [{ field: 'inHand', how: 'least', value: '1' }]
		},
		{
			id: 'given',
			label: 'Given back',
			filters: [{ field: 'given', how: 'least', value: '1' }]
		}
	]
};
