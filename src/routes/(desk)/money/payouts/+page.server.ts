import { readCursor } from '$lib/core/paging';
import { payoutPage } from '$lib/server/services/money/payouts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) =>
	payoutPage(locals.world, readCursor(url.searchParams));
