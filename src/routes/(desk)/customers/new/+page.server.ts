import { fail, redirect } from '@sveltejs/kit';
import { readForm } from '$lib/server/answers';
import { FieldError } from '$lib/core/refusals';
import { addCustomer } from '$lib/server/services/customers/customers';
import type { Actions } from './$types';

const BOXES = ['name', 'kind', 'address', 'email', 'phone', 'privateNote'] as const;

/** Without scripts: the boxes everybody has. What else there is to say is said on the customer's page. */
export const actions: Actions = {
	default: async ({ request, locals }) => {
		const posted = await readForm(request, locals.world.clock.today());
		const typed = Object.fromEntries(
			BOXES.map((name) => [name, String(posted.get(name) ?? '')])
		) as Record<(typeof BOXES)[number], string>;
		let id: number;
		try {
			id = addCustomer(locals.world, typed);
		} catch (error) {
			if (!(error instanceof FieldError)) throw error;
			return fail(422, { typed, errors: error.fields });
		}
		redirect(303, `/customers/${id}`);
	}
};
