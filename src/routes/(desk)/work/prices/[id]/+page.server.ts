import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound } from '$lib/server/answers';
import { savePicture } from '$lib/server/services/prices/pictures';
import {
	archivePriceItem,
	categories,
	priceItem,
	removePriceItem
} from '$lib/server/services/prices/prices';
import { blankSheet } from '$lib/core/sheet/blank';
import { sheetContext } from '$lib/server/services/invoices/context';
import { isRegistered } from '$lib/server/services/business/settings';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => ({
	entry: orNotFound(() => priceItem(locals.world, idOf(params.id))),
	categories: categories(locals.world.db),
	registered: isRegistered(locals.world),
	parties: sheetContext(locals.world.db, blankSheet(), locals.world.clock.today())
});

export const actions: Actions = {
	archive: (event) =>
		act(event, z.object({ archived: box }), ({ archived }, world) => {
			archivePriceItem(world, idOf(event.params.id), archived === 'yes');
		}),
	picture: (event) =>
		act(event, z.object({}), async (_values, world, posted) => {
			const file = posted.get('picture');
			const bytes = file instanceof File ? Buffer.from(await file.arrayBuffer()) : Buffer.alloc(0);
			await savePicture(world, idOf(event.params.id), bytes);
		}),
	remove: (event) =>
		act(event, z.object({}), (_values, world) => {
			const bin = removePriceItem(world, idOf(event.params.id));
			redirect(303, bin === null ? '/work/prices' : `/work/prices?removed=${bin}`);
		})
};
