import { searchCustomers } from '$lib/server/services/customers/customers';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const search = (url.searchParams.get('q') ?? '').slice(0, 200);
	const archived = url.searchParams.has('archived');
	return { search, archived, customers: searchCustomers(locals.world, search, 200, archived) };
};
