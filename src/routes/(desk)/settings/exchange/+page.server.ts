import { z } from 'zod';
import { act, box, fileOf } from '$lib/server/answers';
import {
	addRate,
	exchangePage,
	importRates,
	removeRate,
	restoreRate
} from '$lib/server/services/business/exchange';
import type { Currency } from '$lib/core/money/currencies';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	...exchangePage(locals.world),
	today: locals.world.clock.today()
});

const rate = { currency: box, from: box, to: box, rate: box, source: box };

export const actions: Actions = {
	add: (event) => act(event, z.object(rate), (form, world) => addRate(world, form)),
	file: (event) =>
		act(event, z.object({}), async (_form, world, posted) => {
			const { bytes, name } = await fileOf(posted, 2, 'Choose a CSV file with monthly rates.');
			return importRates(world, name, bytes);
		}),
	remove: (event) =>
		act(event, z.object({ currency: box, from: box }), ({ currency, from }, world) => ({
			removed: removeRate(world, currency, from)
		})),
	restore: (event) =>
		act(event, z.object(rate), ({ currency, ...row }, world) =>
			restoreRate(world, { ...row, currency: currency as Currency })
		)
};
