import { answer, idOf, readBody } from '$lib/server/answers';
import { changeRepeat } from '$lib/server/services/repeats/repeats';
import type { RequestHandler } from './$types';

/** Other lines, from a day on. */
export const PUT: RequestHandler = ({ locals, params, request }) =>
	answer(async () => {
		const { from, sheet } = await readBody(request);
		changeRepeat(locals.world, idOf(params.id), String(from ?? ''), sheet);
	});
