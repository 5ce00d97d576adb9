import { z } from 'zod';
import { act, box, rowId } from '$lib/server/answers';
import { LINE_TAG_SORTS } from '$lib/server/db/schema';
import { addLineTag, archiveLineTag, listLineTags } from '$lib/server/services/business/lineTags';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({ tags: listLineTags(locals.world.db) });

const one = z.object({ id: rowId });

export const actions: Actions = {
	add: (event) =>
		act(event, z.object({ sort: z.enum(LINE_TAG_SORTS), name: box }), ({ sort, name }, world) => {
			addLineTag(world, sort, { name });
		}),
	archive: (event) => act(event, one, ({ id }, world) => archiveLineTag(world, id, true)),
	restore: (event) => act(event, one, ({ id }, world) => archiveLineTag(world, id, false))
};
