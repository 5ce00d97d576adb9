import { redirect } from '@sveltejs/kit';
import { act } from '$lib/server/answers';
import { costForm, costPage, keepReceipts, typedCost } from '$lib/server/costForms';
import { savePurchase } from '$lib/server/services/costs/purchases';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => ({
	...costPage(locals.world, null),
	jobId: Number(url.searchParams.get('job')) || null
});

export const actions: Actions = {
	default: (event) =>
		act(event, costForm, async ({ key, version: _version, ...values }, world, posted) => {
			const id = savePurchase(world, key, null, 0, typedCost(values));
			await keepReceipts(world, id, posted);
			redirect(303, values.next ? '/costs/new' : '/lists/costs');
		})
};
