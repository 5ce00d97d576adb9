import { redirect } from '@sveltejs/kit';
import { act, orNotFound, typedAmount, readForm } from '$lib/server/answers';
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
async function begin({ request, locals, params }: RequestEvent, way: 'card' | 'bank') {
	const form = await readForm(request, locals.world.clock.today());
	const typed = String(form.get('amount') ?? '').trim();
	const result = await act(
		async () => {
			// A page without scripts sends no key: each press then is one of its own.
			const key = String(form.get('key') ?? '') || newToken();
			const amount = typedAmount(typed);
			const keepCard = way === 'card' && form.has('keepCard');
			return {
				url: await openCheckout(locals.world, params.token, `${way}:${key}`, amount, {
					keepCard,
					way
				})
			};
		},
		{ amount: typed }
	);
	if (!('url' in result)) return result;
	redirect(303, result.url);
}

export const actions: Actions = {
	card: (event) => begin(event, 'card'),
	bank: (event) => begin(event, 'bank'),
	forgetCard: ({ locals, params }) =>
		act(async () => {
			await revokeByCustomer(locals.world, params.token);
		})
};
