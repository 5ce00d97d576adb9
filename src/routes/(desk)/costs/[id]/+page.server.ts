import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, idOf, orNotFound } from '$lib/server/answers';
import { costForm, costPage, typedCost } from '$lib/server/costForms';
import { purchaseForm, removePurchase, savePurchase } from '$lib/server/services/costs/purchases';
import { filesOf } from '$lib/server/services/files/files';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params }) => {
	const id = idOf(params.id);
	const cost = orNotFound(() => purchaseForm(world.db, id));
	return {
		...costPage(world, cost.jobId),
		cost,
		files: filesOf(world.db, { to: 'purchase', id })
	};
};

export const actions: Actions = {
	save: (event) =>
		act(event, costForm, ({ key, version, ...values }, world) => {
			savePurchase(world, key, idOf(event.params.id), version, typedCost(values));
			redirect(303, '/lists/costs');
		}),
	remove: (event) =>
		act(event, z.object({}), (_values, world) =>
			removePurchase(world, idOf(event.params.id), true)
		),
	restore: (event) =>
		act(event, z.object({}), (_values, world) =>
			removePurchase(world, idOf(event.params.id), false)
		)
};
