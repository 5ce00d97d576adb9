import { payoutPage } from '$lib/server/services/money/payouts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const typed = url.searchParams.get('page') ?? '';
	const page = /^[1-9]\d{0,5}$/.test(typed) ? Number(typed) : 1;
	return { ...payoutPage(locals.world, page), page };
};
