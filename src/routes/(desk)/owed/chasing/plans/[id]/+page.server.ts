import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound, readJson, rowId } from '$lib/server/answers';
import { labelsInUse, loadPlan, loadPlans, savePlan } from '$lib/server/services/chasing/plans';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => {
		const { db } = locals.world;
		// A new one begins with the standard plan's steps, as steps of its own.
		const plan =
			params.id === 'new'
				? {
						...loadPlans(db).find((one) => one.standard)!,
						id: null,
						version: 0,
						name: '',
						labels: [] as string[],
						standard: false
					}
				: loadPlan(db, idOf(params.id));
		const fresh = plan.id === null;
		return {
			plan: {
				id: plan.id,
				version: plan.version,
				name: plan.name,
				labels: plan.labels,
				standard: plan.standard,
				chargeAfter: plan.chargeAfter,
				steps: plan.steps.map((step) => (fresh ? { ...step, id: '' } : step))
			},
			labels: labelsInUse(db)
		};
	});

export const actions: Actions = {
	save: (event) =>
		act(event, z.object({ plan: box, version: rowId }), ({ plan, version }, world) => {
			const id = event.params.id === 'new' ? null : idOf(event.params.id);
			savePlan(world, id, version, readJson(plan));
			redirect(303, '/owed/chasing/plans');
		})
};
