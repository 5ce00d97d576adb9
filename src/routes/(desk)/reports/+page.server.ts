import { z } from 'zod';
import { act, box, rowId } from '$lib/server/answers';
import { may } from '$lib/server/actor';
import { askedPeriod } from '$lib/server/reportPeriod';
import {
	openPackLinks,
	revokePackLink,
	sendPack,
	usualAccountant
} from '$lib/server/services/reports/packLinks';
import { profitOf } from '$lib/server/services/reports/reports';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals: { world }, url }) => {
	const asked = askedPeriod(url, world.clock.today());
	return {
		...asked,
		profit: await profitOf(world, asked.period, asked.basis),
		packs: may('owner') ? openPackLinks(world) : [],
		accountant: may('owner') ? usualAccountant(world) : ''
	};
};

export const actions: Actions = {
	sendPack: (event) =>
		act(event, z.object({ key: box, to: box, words: box }), (form, world) => {
			const { period, basis } = askedPeriod(event.url, world.clock.today());
			sendPack(world, period, basis, form);
		}),
	revokePack: (event) =>
		act(event, z.object({ id: rowId }), ({ id }, world) => revokePackLink(world, id))
};
