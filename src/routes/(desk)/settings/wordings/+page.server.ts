import { listWordings } from '$lib/server/services/wordings/wordings';
import { loadPlans } from '$lib/server/services/chasing/plans';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => {
	const { db } = locals.world;
	return {
		wordings: listWordings(db),
		plans: loadPlans(db).map(({ id, name, steps }) => ({ id, name, steps: steps.length }))
	};
};
