import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound, rowId, tick } from '$lib/server/answers';
import {
	addMaterial,
	addSiteTime,
	finishFromSite,
	noteVisit,
	siteJob
} from '$lib/server/services/jobs/site';
import { mustGoTo } from '$lib/server/services/jobs/reach';
import { startClock, stopClock } from '$lib/server/services/jobs/time';
import { newToken } from '$lib/server/services/business/keys';
import { beginSheet } from '$lib/server/services/signing/sheets';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params }) => ({
	today: world.clock.today(),
	job: orNotFound(() => siteJob(world, idOf(params.job)))
});

const press = z.object({ key: box });

export const actions: Actions = {
	start: (event) =>
		act(event, press, ({ key }, world) => {
			const id = idOf(event.params.job);
			mustGoTo(world.db, id);
			startClock(world, key, id);
		}),
	stop: (event) =>
		act(event, press, (_values, world) => {
			stopClock(world);
		}),
	time: (event) =>
		act(event, z.object({ key: box, hours: box, note: box }), ({ key, ...values }, world) =>
			addSiteTime(world, idOf(event.params.job), key, values)
		),
	cost: (event) =>
		act(
			event,
			z.object({ key: box, description: box, quantity: box, unit: box }),
			({ key, ...values }, world) => addMaterial(world, idOf(event.params.job), key, values)
		),
	note: (event) =>
		act(event, z.object({ visit: rowId, note: box, done: tick }), ({ visit, done, note }, world) =>
			noteVisit(world, idOf(event.params.job), visit, { note }, done)
		),
	sheet: (event) =>
		act(event, press, ({ key }, world) => {
			redirect(303, `/work/sheets/${beginSheet(world, idOf(event.params.job), key || newToken())}`);
		}),
	done: (event) =>
		act(event, press, (_values, world) => {
			finishFromSite(world, idOf(event.params.job));
			redirect(303, '/site');
		})
};
