import { z } from 'zod';
import { act, box, rowId } from '$lib/server/answers';
import {
	archiveWorkKind,
	listWorkKinds,
	saveWorkKind
} from '$lib/server/services/business/workKinds';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({ kinds: listWorkKinds(locals.world.db) });

const one = z.object({ id: rowId });

export const actions: Actions = {
	add: (event) =>
		act(event, z.object({ name: box, letterheadId: rowId }), ({ name, letterheadId }, world) => {
			saveWorkKind(world, null, { name, letterheadId: letterheadId || null });
		}),
	save: (event) =>
		act(
			event,
			z.object({ id: rowId, name: box, letterheadId: rowId }),
			({ id, name, letterheadId }, world) => {
				saveWorkKind(world, id, { name, letterheadId: letterheadId || null });
			}
		),
	archive: (event) => act(event, one, ({ id }, world) => archiveWorkKind(world, id, true)),
	restore: (event) => act(event, one, ({ id }, world) => archiveWorkKind(world, id, false))
};
