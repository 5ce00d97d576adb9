import { choosers, loadPlans } from '$lib/server/services/chasing/plans';
import type { PageServerLoad } from './$types';

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
