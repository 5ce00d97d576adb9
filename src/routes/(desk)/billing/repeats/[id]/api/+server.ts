import { answer, idOf, readBody } from '$lib/server/answers';
import { changeRepeat } from '$lib/server/services/repeats/repeats';
import type { RequestHandler } from './$types';

/** Other lines, from a day on, or for the occurrence of that day alone. */
export const PUT: RequestHandler = ({ locals, params, request }) =>
	answer(async () => {
		const { from, sheet, only } = await readBody(request);
		changeRepeat(locals.world, idOf(params.id), String(from ?? ''), sheet, only === true);
	});
