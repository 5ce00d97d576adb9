import { askedPeriod } from '$lib/server/reportPeriod';
import { profitOf } from '$lib/server/services/reports/reports';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals: { world }, url }) => {
	const asked = askedPeriod(url, world.clock.today());
	return { ...asked, profit: await profitOf(world, asked.period, asked.basis) };
};
