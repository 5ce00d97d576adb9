import { z } from 'zod';
import { act, rowId } from '$lib/server/answers';
import { readReply, replies } from '$lib/server/services/messages/replies';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world } }) => ({ replies: replies(world.db) });

export const actions: Actions = {
	read: (event) => act(event, z.object({ id: rowId }), ({ id }, world) => readReply(world, id))
};
