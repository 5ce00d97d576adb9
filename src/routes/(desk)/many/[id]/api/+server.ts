import { answer, idOf } from '$lib/server/answers';
import { manyRun } from '$lib/server/services/many/page';
import type { RequestHandler } from './$types';

/** How far it is. */
export const GET: RequestHandler = ({ locals, params }) =>
	answer(() => {
		const { state, all, waiting } = manyRun(locals.world, idOf(params.id));
		return { state, done: all - waiting, of: all };
	});
