// The list of e-mails and texts that went out, or should have.
import type { MailRow } from '../documents/detail';
import type { ListSpec } from './types';

/** Every kind there is: one without words would be shown by its name in the books. */
const KINDS: Readonly<Record<MailRow['kind'], string>> = {
	invoice: 'an invoice',
	creditNote: 'a credit note',
	statement: 'a statement',
	reminder: 'a reminder',
	receipt: 'a receipt',
	quote: 'a quote',
	deposit: 'a deposit',
	visit: 'a visit',
	jobSheet: 'a job sheet',
	enquiry: 'an enquiry',
	paidNotice: 'news of a payment',
	quoteNews: 'news of a quote',
	enquiryNews: 'news of an enquiry',
	signed: 'news of a signature',
	textReply: 'an answer by text',
	notice: 'a notice to you',
	trial: 'a test'
};

export const MESSAGES: ListSpec = {
	name: 'messages',
	words: ['message', 'messages'],
	fields: [
		{ id: 'to', label: 'to', head: 'To', type: 'text', names: true },
		{ id: 'written', label: 'written', head: 'Written', type: 'day', moment: true },
		{ id: 'subject', label: 'subject', head: 'Subject', type: 'text' },
		{
			id: 'as',
			label: 'as',
			head: 'As',
			type: 'choice',
			choices: { mail: 'e-mail', text: 'text' }
		},
		{
			id: 'kind',
			label: 'about',
			head: 'About',
			type: 'choice',
			choices: KINDS
		},
		{
			id: 'state',
			label: 'state',
			head: 'State',
			type: 'choice',
			choices: {
				queued: 'waiting',
				sending: 'going out',
				sent: 'sent',
				failed: 'not arrived',
				unsure: 'perhaps sent',
				withdrawn: 'taken back'
			}
		},
		{ id: 'went', label: 'sent', head: 'Sent', type: 'day', moment: true },
		{ id: 'document', label: 'document', head: 'Document', type: 'text', sort: false },
		{ id: 'trouble', label: 'what went wrong', head: 'What went wrong', type: 'text' }
	],
	columns: ['to', 'subject', 'kind', 'state', 'written'],
	sort: { field: 'written', down: true },
	actions: true,
	views: [
		{ id: 'all', label: 'All', filters: [] },
		{
			id: 'waiting',
			label: 'Waiting',
			filters: [{ field: 'state', how: 'is', value: 'queued,sending' }]
		},
		{
			id: 'failed',
			label: 'Not arrived',
			filters: [{ field: 'state', how: 'is', value: 'failed,unsure' }]
		},
		{ id: 'texts', label: 'Texts', filters: [{ field: 'as', how: 'is', value: 'text' }] }
	]
};
