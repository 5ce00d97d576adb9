import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, rowId } from '$lib/server/answers';
import {
	archiveLetterhead,
	listLetterheads,
	makeLetterhead,
	makeStandard
} from '$lib/server/services/letterheads/letterheads';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	letterheads: listLetterheads(locals.world.db).map(({ look, ...one }) => ({
		...one,
		accent: look.accent,
		logo: look.logo
	}))
});

const one = z.object({ id: rowId });

export const actions: Actions = {
	make: (event) =>
		act(event, z.object({ key: box, from: rowId }), ({ key, from }, world) =>
			redirect(303, `/settings/letterheads/${makeLetterhead(world, key, from || null)}`)
		),
	standard: (event) => act(event, one, ({ id }, world) => makeStandard(world, id)),
	archive: (event) => act(event, one, ({ id }, world) => archiveLetterhead(world, id, true)),
	restore: (event) => act(event, one, ({ id }, world) => archiveLetterhead(world, id, false))
};
