import { z } from 'zod';
import { act, box } from '$lib/server/answers';
import { categories } from '$lib/server/services/prices/prices';
import { fingerprint, previewRaise, raisePrices } from '$lib/server/services/prices/raise';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	categories: categories(locals.world.db)
});

const raiseForm = z.object({ category: box, percent: box, seen: box });

export const actions: Actions = {
	preview: (event) =>
		act(event, raiseForm, ({ seen: _, ...values }, world) => {
			const raised = previewRaise(world, values);
			return {
				raised: raised.slice(0, 500),
				count: raised.length,
				seen: fingerprint(raised),
				values
			};
		}),
	raise: (event) =>
		act(event, raiseForm, ({ seen, ...values }, world) => ({
			done: raisePrices(world, values, seen),
			values
		}))
};
