import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, fromOf, idOf, optionalFile, orNotFound, tick } from '$lib/server/answers';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import { newToken } from '$lib/server/services/business/keys';
import { acceptQuote, readOrder } from '$lib/server/services/quotes/accept';
import { quotePage } from '$lib/server/services/quotes/page';
import { loadQuote } from '$lib/server/services/quotes/quotes';
import { confirmAcceptances } from '$lib/server/services/quotes/record';
import type { Actions, PageServerLoad } from './$types';

/** The owner hands the phone over: what the customer's own page shows, and nothing private. */
export const load: PageServerLoad = ({ locals: { world }, params }) => {
	const row = orNotFound(() => loadQuote(world.db, idOf(params.id)));
	const page = orNotFound(() => quotePage(world, row.token));
	if (page.state !== 'open') redirect(303, `/work/quotes/${row.id}`);
	const { quote, number, version, validUntil } = page;
	return { id: row.id, quote, number, version, validUntil };
};

export const actions: Actions = {
	accept: (event) =>
		act(
			event,
			z.object({
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
			}),
			async (form, world, posted) => {
				const id = idOf(event.params.id);
				const order = await readOrder(world, await optionalFile(posted, 'order'));
				acceptQuote(
					world,
					id,
					{ ...form, key: form.key || newToken() },
					{
						way: 'spot',
						informed: 'page',
						from: fromOf(event),
						order
					}
				);
				await confirmAcceptances(world);
				deliverSoon(world);
				redirect(303, `/work/quotes/${id}?just=accepted`);
			}
		)
};
