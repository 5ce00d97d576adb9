import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound, rowId } from '$lib/server/answers';
import { claimPage, writeClaim } from '$lib/server/services/chasing/claimLetter';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => claimPage(locals.world, idOf(params.payer)));

export const actions: Actions = {
	write: (event) =>
		act(
			event,
			z.object({ key: box, debtor: box, agreed: box, document: z.array(rowId).catch([]) }),
			({ document, ...form }, world) => {
				writeClaim(world, idOf(event.params.payer), {
					...form,
					documents: document.filter(Boolean)
				});
				redirect(303, '/owed/chasing#sent');
			}
		)
};
