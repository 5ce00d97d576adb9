import { z } from 'zod';
import { act, box, rowId } from '$lib/server/answers';
import { archivePlan, choosers, loadPlans, restorePlan } from '$lib/server/services/chasing/plans';
import { loadQuotePlan, saveQuotePlan } from '$lib/server/services/quotes/plan';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => {
	const { db } = locals.world;
	const chosen = choosers(db);
	return {
		quotes: loadQuotePlan(db),
		plans: loadPlans(db).map(({ id, name, steps, labels, standard, chargeAfter }) => ({
			id,
			name,
			steps: steps.map(({ id: step, offset, channel, tone, byHand }) => ({
				id: step,
				offset,
				channel,
				tone,
				byHand
			})),
			labels,
			standard,
			chargeAfter,
			chosenBy: chosen.get(id) ?? 0
		}))
	};
};

const which = z.object({ id: rowId });

export const actions: Actions = {
	quotes: (event) =>
		act(event, z.object({ after: box, before: box }), (form, world) => saveQuotePlan(world, form)),
	archive: (event) => act(event, which, ({ id }, world) => archivePlan(world, id)),
	restore: (event) => act(event, which, ({ id }, world) => restorePlan(world, id))
};
