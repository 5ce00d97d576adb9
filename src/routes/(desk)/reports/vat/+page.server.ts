import { vatPeriodsOf } from '$lib/core/reports/periods';
import { askedPeriod } from '$lib/server/reportPeriod';
import { isRegistered, vatWays } from '$lib/server/services/business/settings';
import { vatPeriod } from '$lib/server/services/reports/reports';
import type { PageServerLoad } from './$types';

/** More rows than anybody reads on a page: all of them are in the pack. */
const SHOWN = 500;

export const load: PageServerLoad = async ({ locals: { world }, url }) => {
	const { basis, stagger } = vatWays(world.db);
	if (!url.searchParams.has('basis')) url.searchParams.set('basis', basis);
	const today = world.clock.today();
	const asked = askedPeriod(url, today, vatPeriodsOf(today, stagger));
	const { rows, costRows, ...boxes } = await vatPeriod(world, asked.period, asked.basis);
	return {
		...asked,
		registered: isRegistered(world),
		/** Whether it is as the settings say. */
		said: stagger !== '',
		usual: asked.basis === basis,
		boxes,
		rows: rows.slice(0, SHOWN),
		costRows: costRows.slice(0, SHOWN),
		more: Math.max(0, rows.length - SHOWN, costRows.length - SHOWN)
	};
};
