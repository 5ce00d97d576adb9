import { z } from 'zod';
import { act, rowId } from '$lib/server/answers';
import { movingsPage } from '$lib/server/services/moving/book';
import { takeBackMoving } from '$lib/server/services/moving/takeBack';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({ movings: movingsPage(locals.world) });

export const actions: Actions = {
	back: (event) =>
		act(event, z.object({ id: rowId }), ({ id }, world) => ({ back: takeBackMoving(world, id) }))
};
