import { idOf, orNotFound } from '$lib/server/answers';
import { billRun } from '$lib/server/services/billing/billRun';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => ({
	run: orNotFound(() => billRun(locals.world, idOf(params.id)))
});
