import { categories } from '$lib/server/services/prices';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	categories: categories(locals.world.db)
});
