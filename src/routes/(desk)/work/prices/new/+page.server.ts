import { categories } from '$lib/server/services/prices/prices';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	categories: categories(locals.world.db)
});
