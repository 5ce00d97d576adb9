import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, fromOf, optionalFile, orNotFound, tick } from '$lib/server/answers';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import { newToken } from '$lib/server/services/business/keys';
import { filesGoingOut } from '$lib/server/services/files/files';
import { lastDepositTry } from '$lib/server/services/money/depositRequests';
import { openDepositCheckout } from '$lib/server/services/money/depositRequests';
import { acceptQuote, readOrder } from '$lib/server/services/quotes/accept';
import { cancelByCustomer } from '$lib/server/services/quotes/cancel';
import {
	askQuestion,
	declineQuote,
	noteQuoteOpened,
	quoteByToken,
	quotePage
} from '$lib/server/services/quotes/page';
import { confirmAcceptances } from '$lib/server/services/quotes/record';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = ({ locals, params, url }) => {
	const { world } = locals;
	const { id, ...page } = orNotFound(() => quotePage(world, params.token));
	// The owner looking at it is not the customer.
	if (!locals.signedIn && !page.trial) noteQuoteOpened(world, params.token);
	return {
		...page,
		files: filesGoingOut(world.db, id, 'quote'),
		last: page.trial ? null : lastDepositTry(world.db, id),
		from: url.searchParams.get('from') ?? ''
	};
};

const acceptance = z.object({
	key: box,
	n: box,
	total: box,
	picked: box,
	name: box,
	position: box,
	orderNumber: box,
	signature: box,
	begin: tick,
	acknowledged: tick
});

const begin = (event: RequestEvent, way: 'card' | 'bank') =>
	act(event, z.object({ key: box }), async ({ key }, world) => {
		redirect(
			303,
			await openDepositCheckout(world, event.params.token, `${way}:${key || newToken()}`, way)
		);
	});

export const actions: Actions = {
	accept: (event) =>
		act(event, acceptance, async (form, world, posted) => {
			const { row } = quoteByToken(world.db, event.params.token);
			const order = await readOrder(world, await optionalFile(posted, 'order'));
			acceptQuote(
				world,
				row.id,
				{ ...form, key: form.key || newToken() },
				{
					way: 'page',
					informed: 'page',
					from: fromOf(event),
					order
				}
			);
			void confirmAcceptances(world)
				.then(() => deliverSoon(world))
				.catch(() => undefined);
		}),
	decline: (event) =>
		act(event, z.object({ reason: box }), ({ reason }, world) => {
			declineQuote(world, event.params.token, reason);
			deliverSoon(world);
		}),
	ask: (event) =>
		act(event, z.object({ key: box, question: box }), ({ key, question }, world) => {
			askQuestion(world, event.params.token, { key: key || newToken(), question });
			deliverSoon(world);
		}),
	cancel: (event) =>
		act(event, z.object({}), (_values, world) => {
			const { row } = quoteByToken(world.db, event.params.token);
			cancelByCustomer(world, row.id);
			deliverSoon(world);
		}),
	card: (event) => begin(event, 'card'),
	bank: (event) => begin(event, 'bank')
};
