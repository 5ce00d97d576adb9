import { z } from 'zod';
import { act, rowId } from '$lib/server/answers';
import { archivePlan, choosers, loadPlans, restorePlan } from '$lib/server/services/chasing/plans';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => {
	const { db } = locals.world;
	const chosen = choosers(db);
	return {
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
	archive: (event) => act(event, which, ({ id }, world) => archivePlan(world, id)),
	restore: (event) => act(event, which, ({ id }, world) => restorePlan(world, id))
};
