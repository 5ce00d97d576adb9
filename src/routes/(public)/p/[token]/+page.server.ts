import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, orNotFound, tick, typedAmount } from '$lib/server/answers';
import { openCheckout } from '$lib/server/services/money/checkouts';
import { noteReminderOpened } from '$lib/server/services/chasing/messages';
import { newToken } from '$lib/server/services/business/keys';
import { keptCardShown, revokeByCustomer } from '$lib/server/services/repeats/keptCards';
import { noteOpened, payPage } from '$lib/server/services/money/payPage';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = ({ locals, params, url }) => {
	const shown = orNotFound(() => payPage(locals.world, params.token));
	// The owner looking at it is not the customer.
	if (!locals.signedIn) {
		noteOpened(locals.world, params.token, 'opened');
		noteReminderOpened(locals.world, url.searchParams.get('r') ?? '');
	}
	return {
		...shown,
		keptCard: keptCardShown(locals.world, params.token),
		/** Where the customer comes back from: `card`, `bank`, or nowhere. */
		from: url.searchParams.get('from') ?? ''
	};
};

/** Where the customer pays what the form says. */
const begin = (event: RequestEvent, way: 'card' | 'bank') =>
	act(
		event,
		z.object({ key: box, amount: box, keepCard: tick }),
		async ({ key, amount, keepCard }, world) => {
			// A page without scripts sends no key: each press then is one of its own.
			const press = `${way}:${key || newToken()}`;
			const options = { keepCard: way === 'card' && keepCard, way };
			const sum = typedAmount(amount.trim());
			redirect(303, await openCheckout(world, event.params.token, press, sum, options));
		}
	);

export const actions: Actions = {
	card: (event) => begin(event, 'card'),
	bank: (event) => begin(event, 'bank'),
	forgetCard: (event) =>
		act(event, z.object({}), async (_values, world) => {
			await revokeByCustomer(world, event.params.token);
		})
};
