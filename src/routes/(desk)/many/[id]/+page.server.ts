import { z } from 'zod';
import { FieldError } from '$lib/core/refusals';
import { act, box, idOf, orNotFound } from '$lib/server/answers';
import { MANY_ACTIONS } from '$lib/core/lists/actions';
import { namesOf, rowsOfList } from '$lib/server/services/desk/lists/rows';
import {
	actionOf,
	beginRun,
	checkRows,
	continueMany,
	resumeRun,
	stopRun
} from '$lib/server/services/many/runs';
import { leftOutOf, manyRun } from '$lib/server/services/many/page';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals, params, url }) => {
	const { world } = locals;
	const id = idOf(params.id);
	const run = orNotFound(() => manyRun(world, id));
	const action = actionOf(run.list, run.action ?? url.searchParams.get('do'));
	const checked =
		action && run.state === 'chosen'
			? await checkRows(world, id, action.id, rowsOfList(run.list))
			: null;
	const leftOut = checked?.leftOut ?? leftOutOf(world, id);
	const shown = [...leftOut.flatMap((one) => one.ids), ...(checked?.joined.slice(0, 8) ?? [])];
	return {
		today: world.clock.today(),
		run,
		action: action?.id ?? null,
		checked: checked && {
			fits: checked.fits,
			chosen: checked.chosen,
			joined: checked.joined.slice(0, 8),
			joinedCount: checked.joined.length
		},
		leftOut,
		names: Object.fromEntries(namesOf(world, run.list, shown))
	};
};

const none = z.object({});

export const actions: Actions = {
	begin: (event) =>
		act(
			event,
			z.object({
				action: z.enum(['', ...MANY_ACTIONS]).catch(''),
				day: box,
				way: box,
				label: box
			}),
			({ action, ...options }, world) => {
				if (action === '') throw new FieldError({ action: 'Choose what is to be done.' });
				beginRun(world, idOf(event.params.id), action, options);
				void continueMany(world).catch(() => undefined);
			}
		),
	stop: (event) => act(event, none, (_values, world) => stopRun(world, idOf(event.params.id))),
	resume: (event) =>
		act(event, none, (_values, world) => {
			resumeRun(world, idOf(event.params.id));
			void continueMany(world).catch(() => undefined);
		})
};
