import { categories } from '$lib/server/services/prices/prices';
import { isRegistered } from '$lib/server/services/business/settings';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	categories: categories(locals.world.db),
	registered: isRegistered(locals.world)
});
