import { error } from '@sveltejs/kit';
import { loadBusiness } from '$lib/server/services/business/settings';
import { packBehind } from '$lib/server/services/reports/packLinks';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params }) => {
	const pack = packBehind(world, params.token);
	if (!pack) error(404, 'This link opens nothing any more. Ask whoever sent it for another one.');
	const { tradingName, ownerName } = loadBusiness(world.db);
	return {
		of: tradingName || ownerName,
		from: pack.from,
		to: pack.to,
		basis: pack.basis,
		until: pack.until
	};
};
