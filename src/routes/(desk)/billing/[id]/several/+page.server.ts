import { redirect } from '@sveltejs/kit';
import { act, idOf, orNotFound, readForm } from '$lib/server/answers';
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
	default: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const result = await act(() =>
			copyToCustomers(
				locals.world,
				idOf(params.id),
				form.getAll('customer').map(Number),
				String(form.get('key') ?? '')
			)
		);
		if (!Array.isArray(result)) return result;
		redirect(303, '/billing?state=draft');
	}
};
