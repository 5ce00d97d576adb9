import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, orNotFound, rowId, typedAmount } from '$lib/server/answers';
import { newToken } from '$lib/server/services/business/keys';
import { noteReminderOpened } from '$lib/server/services/chasing/messages';
import { payReminder, reminderPage } from '$lib/server/services/chasing/reminderPage';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = ({ locals, params, url }) => {
	const shown = orNotFound(() => reminderPage(locals.world, params.token));
	// The owner looking at it is not the payer.
	if (!locals.signedIn) noteReminderOpened(locals.world, params.token);
	return { ...shown, from: url.searchParams.get('from') ?? '' };
};

const begin = (event: RequestEvent, way: 'card' | 'bank') =>
	act(
		event,
		z.object({ key: box, amount: box, invoice: z.array(rowId).catch([]) }),
		async ({ key, amount, invoice }, world) => {
			const press = `${way}:${key || newToken()}`;
			const sum = typedAmount(amount.trim());
			const chosen = invoice.filter(Boolean);
			redirect(303, await payReminder(world, event.params.token, press, chosen, sum, way));
		}
	);

export const actions: Actions = {
	card: (event) => begin(event, 'card'),
	bank: (event) => begin(event, 'bank')
};
