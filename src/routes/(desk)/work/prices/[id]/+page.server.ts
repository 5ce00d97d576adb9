import { redirect } from '@sveltejs/kit';
import { act, idOf, orNotFound, readForm } from '$lib/server/answers';
import { savePicture } from '$lib/server/services/prices/pictures';
import {
	archivePriceItem,
	categories,
	priceItem,
	removePriceItem
} from '$lib/server/services/prices/prices';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => ({
	entry: orNotFound(() => priceItem(locals.world, idOf(params.id))),
	categories: categories(locals.world.db)
});

export const actions: Actions = {
	archive: async ({ request, locals, params }) => {
		const archived =
			(await readForm(request, locals.world.clock.today())).get('archived') === 'yes';
		return act(() => archivePriceItem(locals.world, idOf(params.id), archived));
	},
	picture: async ({ request, locals, params }) => {
		const file = (await readForm(request, locals.world.clock.today())).get('picture');
		return act(async () => {
			const bytes = file instanceof File ? Buffer.from(await file.arrayBuffer()) : Buffer.alloc(0);
			await savePicture(locals.world, idOf(params.id), bytes);
		});
	},
	remove: async ({ locals, params }) => {
		const result = await act(() => {
			removePriceItem(locals.world, idOf(params.id));
			return 'removed' as const;
		});
		if (result !== 'removed') return result;
		redirect(303, '/work/prices');
	}
};
