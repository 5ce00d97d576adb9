import { askedPeriod } from '$lib/server/reportPeriod';
import { isRegistered } from '$lib/server/services/business/settings';
import { vatPeriod } from '$lib/server/services/reports/reports';
import type { PageServerLoad } from './$types';

/** More rows than anybody reads on a page: all of them are in the pack. */
const SHOWN = 500;

export const load: PageServerLoad = async ({ locals: { world }, url }) => {
	if (!url.searchParams.has('period') && !url.searchParams.has('from'))
		url.searchParams.set('period', 'calendar');
	if (!url.searchParams.has('basis')) url.searchParams.set('basis', 'invoice');
	const asked = askedPeriod(url, world.clock.today());
	const { rows, costRows, ...boxes } = await vatPeriod(world, asked.period, asked.basis);
	return {
		...asked,
		registered: isRegistered(world),
		boxes,
		rows: rows.slice(0, SHOWN),
		costRows: costRows.slice(0, SHOWN),
		more: Math.max(0, rows.length - SHOWN, costRows.length - SHOWN)
	};
};
