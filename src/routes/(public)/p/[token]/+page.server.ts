import { error, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, fromOf, orNotFound, tick, typedAmount } from '$lib/server/answers';
import { openCheckout } from '$lib/server/services/money/checkouts';
import { noteReminderOpened } from '$lib/server/services/chasing/messages';
import { newToken } from '$lib/server/services/business/keys';
import { cardByCode, mailCardCode, revokeByCustomer } from '$lib/server/services/repeats/keptCards';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import { recordSignatures, signDocument, signingBehind } from '$lib/server/services/signing/sign';
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
		signing: signingBehind(locals.world.db, params.token),
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
	sign: (event) =>
		act(
			event,
			z.object({ key: box, of: box, what: box, name: box, position: box, signature: box }),
			async (form, world) => {
				const { id } =
					signingBehind(world.db, event.params.token) ?? error(404, 'There is no such page.');
				const key = form.key || newToken();
				signDocument(world, id, { ...form, key }, { way: 'page', from: fromOf(event) });
				await recordSignatures(world);
				deliverSoon(world);
			}
		),
	card: (event) => begin(event, 'card'),
	bank: (event) => begin(event, 'bank'),
	/** Whether a card is kept is said to nobody who has no code. */
	cardCode: (event) =>
		act(event, z.object({}), (_values, world) => {
			mailCardCode(world, event.params.token);
			deliverSoon(world);
			return { asked: true };
		}),
	showCard: (event) =>
		act(event, z.object({ code: box }), ({ code }, world) => ({
			kept: { ...cardByCode(world, event.params.token, code), code }
		})),
	forgetCard: (event) =>
		act(event, z.object({ code: box }), async ({ code }, world) => {
			await revokeByCustomer(world, event.params.token, code);
			return { forgotten: true };
		})
};
