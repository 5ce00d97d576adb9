// What can be done with many rows of a list at once.
import type { ListName } from './types';

/** What an action asks for before it begins. */
export const ASKED = ['day', 'way', 'label'] as const;
export type Asked = (typeof ASKED)[number];
export type ManyOptions = Partial<Record<Asked, string>>;

export interface ManyAction {
	id: ManyActionId;
	asks?: readonly Asked[];
	/** On its button. */
	label: string;
	/** What it does, beside the number: “Remind 12 invoices”. */
	does: (count: string) => string;
	/** When it is over: “12 invoices reminded”. */
	done: string;
	/** It can be taken back afterwards, and how. */
	undo?: string;
}
export const MANY_ACTIONS = [
	'remind',
	'send',
	'markSent',
	'pay',
	'moveDue',
	'label',
	'unlabel',
	'archive',
	'bringBack',
	'again',
	'costPaid',
	'removeCost',
	'discard'
] as const;
export type ManyActionId = (typeof MANY_ACTIONS)[number];

const LABEL: readonly ManyAction[] = [
	{
		id: 'label',
		label: 'Label',
		asks: ['label'],
		does: (count) => `Label ${count}`,
		done: 'labelled'
	},
	{
		id: 'unlabel',
		label: 'Take a label off',
		asks: ['label'],
		does: (count) => `Take it off ${count}`,
		done: 'freed of it'
	}
];

const ARCHIVE: readonly ManyAction[] = [
	{ id: 'archive', label: 'Archive', does: (count) => `Archive ${count}`, done: 'archived' },
	{
		id: 'bringBack',
		label: 'Take back into use',
		does: (count) => `Take ${count} back`,
		done: 'in use again'
	}
];

export const ACTIONS: Readonly<Record<ListName, readonly ManyAction[]>> = {
	invoices: [
		{
			id: 'remind',
			label: 'Remind',
			does: (count) => `Remind about ${count}`,
			done: 'reminded'
		},
		{ id: 'send', label: 'Send', does: (count) => `Send ${count} by e-mail`, done: 'sent' },
		{
			id: 'markSent',
			label: 'Mark as sent',
			does: (count) => `Mark ${count} as sent`,
			done: 'marked as sent'
		},
		{
			id: 'pay',
			label: 'Record as paid',
			asks: ['day', 'way'],
			does: (count) => `Record that ${count} were paid in full`,
			done: 'recorded as paid',
			undo: 'Each payment can be taken back on its invoice.'
		},
		{
			id: 'moveDue',
			label: 'Change the due day',
			asks: ['day'],
			does: (count) => `Make ${count} due on that day`,
			done: 'given that due day'
		},
		...LABEL,
		{
			id: 'discard',
			label: 'Delete drafts',
			does: (count) => `Delete ${count}`,
			done: 'deleted',
			undo: 'Each can be brought back from its own page.'
		}
	],
	jobs: [...LABEL],
	customers: [...LABEL, ...ARCHIVE],
	payments: [],
	costs: [
		{
			id: 'costPaid',
			label: 'Mark as paid',
			asks: ['day'],
			does: (count) => `Say that ${count} were paid`,
			done: 'marked as paid'
		},
		{
			id: 'removeCost',
			label: 'Delete',
			does: (count) => `Delete ${count}`,
			done: 'deleted',
			undo: 'Each can be brought back from its own page.'
		}
	],
	prices: [...ARCHIVE],
	quotes: [],
	enquiries: [],
	visits: [],
	sheets: [],
	messages: [
		{
			id: 'again',
			label: 'Send again',
			does: (count) => `Send ${count} again`,
			done: 'queued again'
		}
	]
};
