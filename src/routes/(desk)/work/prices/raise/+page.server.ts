import { act, readForm } from '$lib/server/answers';
import { categories } from '$lib/server/services/prices/prices';
import { fingerprint, previewRaise, raisePrices } from '$lib/server/services/prices/raise';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	categories: categories(locals.world.db)
});

const read = (form: FormData) => ({
	category: String(form.get('category') ?? ''),
	percent: String(form.get('percent') ?? '')
});

export const actions: Actions = {
	preview: async ({ request, locals }) => {
		const values = read(await readForm(request, locals.world.clock.today()));
		return act(() => {
			const raised = previewRaise(locals.world, values);
			return {
				raised: raised.slice(0, 500),
				count: raised.length,
				seen: fingerprint(raised),
				values
			};
		}, values);
	},
	raise: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = read(form);
		return act(
			() => ({ done: raisePrices(locals.world, values, String(form.get('seen') ?? '')), values }),
			values
		);
	}
};
