import { redirect } from '@sveltejs/kit';
import { act, idOf, orNotFound, readJson, readForm } from '$lib/server/answers';
import {
	archivePlan,
	labelsInUse,
	loadPlan,
	loadPlans,
	savePlan
} from '$lib/server/services/chasing/plans';
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
	save: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = readJson(form.get('plan'));
		const result = await act(() => {
			const id = params.id === 'new' ? null : idOf(params.id);
			return { saved: savePlan(locals.world, id, Number(form.get('version')) || 0, values) };
		});
		if (!('saved' in result)) return result;
		redirect(303, '/owed/chasing/plans');
	},
	archive: async ({ locals, params }) => {
		const result = await act(() => {
			archivePlan(locals.world, idOf(params.id));
			return { archived: true };
		});
		if (!('archived' in result)) return result;
		redirect(303, '/owed/chasing/plans');
	}
};
