import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound, rowId } from '$lib/server/answers';
import { searchCustomers } from '$lib/server/services/customers/customers';
import { loadDraft } from '$lib/server/services/invoices/drafts';
import { copyToCustomers } from '$lib/server/services/invoices/startingPoints';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
	const document = orNotFound(() => loadDraft(locals.world.db, idOf(params.id)));
	return {
		number: document.number,
		own: document.customerId,
		people: searchCustomers(locals.world, '', 2000)
			.map(({ id, name, kind }) => ({ id, name, kind }))
			.sort((a, b) => a.name.localeCompare(b.name))
	};
};

export const actions: Actions = {
	default: (event) =>
		act(
			event,
			z.object({ key: box, customer: z.array(rowId).catch([]) }),
			({ key, customer }, world) => {
				copyToCustomers(world, idOf(event.params.id), customer, key);
				redirect(303, '/billing?view=draft');
			}
		)
};
