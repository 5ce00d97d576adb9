import { categories } from '$lib/server/services/prices/prices';
import { listPrices } from '$lib/server/services/prices/search';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const given = url.searchParams;
	const page = /^\d{1,6}$/.test(given.get('page') ?? '')
		? Math.max(1, Number(given.get('page')))
		: 1;
	const query = {
		typed: (given.get('q') ?? '').slice(0, 200),
		category: given.get('category') ?? '',
		archived: given.has('archived'),
		page
	};
	return { query, ...listPrices(locals.world, query), categories: categories(locals.world.db) };
};
