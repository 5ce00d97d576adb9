// What can be done with many rows of a list at once.
import type { ListName } from './types';

export interface ManyAction {
	id: ManyActionId;
	/** On its button. */
	label: string;
	/** What it does, beside the number: “Remind 12 invoices”. */
	does: (count: string) => string;
	/** When it is over: “12 invoices reminded”. */
	done: string;
	/** It can be taken back afterwards, and how. */
	undo?: string;
}
export const MANY_ACTIONS = ['remind', 'send', 'markSent', 'discard'] as const;
export type ManyActionId = (typeof MANY_ACTIONS)[number];

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
			id: 'discard',
			label: 'Delete drafts',
			does: (count) => `Delete ${count}`,
			done: 'deleted',
			undo: 'Each can be brought back from its own page.'
		}
	]
};
