// The two buttons of a page on which several invoices are paid together.
import { redirect, type RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, rowId, typedAmount } from './answers';
import { newToken } from './services/business/keys';
import type { payStatement } from './services/owed/statementPage';

type Event = RequestEvent<{ token: string }>;

export function payingTogether(pay: typeof payStatement) {
	const begin = (event: Event, way: 'card' | 'bank') =>
		act(
			event,
			z.object({ key: box, amount: box, invoice: z.array(rowId).catch([]) }),
			async ({ key, amount, invoice }, world) => {
				// A page without scripts sends no key: each press then is one of its own.
				const press = `${way}:${key || newToken()}`;
				const sum = typedAmount(amount.trim());
				const chosen = invoice.filter(Boolean);
				redirect(303, await pay(world, event.params.token, press, chosen, sum, way));
			}
		);
	return {
		card: (event: Event) => begin(event, 'card'),
		bank: (event: Event) => begin(event, 'bank')
	};
}
