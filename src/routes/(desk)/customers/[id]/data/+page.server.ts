import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, idOf, orNotFound, tick } from '$lib/server/answers';
import { FieldError } from '$lib/core/refusals';
import { whatIsKept } from '$lib/server/services/keep/person';
import { removePerson } from '$lib/server/services/keep/removal';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => whatIsKept(locals.world, idOf(params.id)));

export const actions: Actions = {
	remove: (event) =>
		act(event, z.object({ sure: tick }), async ({ sure }, world) => {
			if (!sure) throw new FieldError({ sure: 'Tick it first: what is removed cannot be had back.' });
			await removePerson(world, idOf(event.params.id));
			redirect(303, `/customers/${event.params.id}/data`);
		})
};
