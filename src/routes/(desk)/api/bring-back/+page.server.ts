import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, rowId } from '$lib/server/answers';
import { bringBack } from '$lib/server/services/business/bin';
import type { Actions, PageServerLoad } from './$types';

/** Nothing to look at: what is brought back stands where it was. */
export const load: PageServerLoad = () => redirect(303, '/');

export const actions: Actions = {
	default: (event) =>
		act(event, z.object({ bin: rowId }), ({ bin }, world) => bringBack(world, bin))
};
