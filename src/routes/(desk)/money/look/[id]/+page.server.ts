import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, idOf, orNotFound } from '$lib/server/answers';
import { leaveFile, type Changed } from '$lib/server/services/money/bank/bringIn';
import { columnsForgotten, fileShown, fileTaken } from '$lib/server/services/money/bank/incoming';
import { matchLines } from '$lib/server/services/money/bank/matching';
import type { Actions, PageServerLoad } from './$types';

/** The columns as they were chosen on the page, which stand in its address; null where nothing was. */
const changedIn = (params: URLSearchParams): Changed | null =>
	params.has('seen') ? Object.fromEntries(params) : null;

export const load: PageServerLoad = ({ locals, params, url }) =>
	orNotFound(() =>
		fileShown(
			locals.world,
			idOf(params.id),
			changedIn(url.searchParams),
			Math.max(0, Math.floor(Number(url.searchParams.get('from')) || 0))
		)
	);

export const actions: Actions = {
	take: (event) =>
		act(event, z.object({}), async (_values, world) => {
			const id = idOf(event.params.id);
			const changed = changedIn(event.url.searchParams);
			await fileTaken(world, id, changed);
			matchLines(world).catch(() => undefined);
			redirect(303, `/money?brought=${id}`);
		}),
	leave: (event) =>
		act(event, z.object({}), (_values, world) => {
			leaveFile(world, idOf(event.params.id));
			redirect(303, '/money');
		}),
	forget: (event) =>
		act(event, z.object({}), async (_values, world) => {
			await columnsForgotten(world, idOf(event.params.id));
			redirect(303, `/money/look/${idOf(event.params.id)}`);
		})
};
