import { readCursor } from '$lib/core/paging';
import { categories } from '$lib/server/services/prices/prices';
import { listPrices } from '$lib/server/services/prices/search';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const given = url.searchParams;
	const query = {
		typed: (given.get('q') ?? '').slice(0, 200),
		category: given.get('category') ?? '',
		archived: given.has('archived'),
		cursor: readCursor(given)
	};
	return { query, ...listPrices(locals.world, query), categories: categories(locals.world.db) };
};
