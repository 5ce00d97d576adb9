import { answer, idOf, readBody } from '$lib/server/answers';
import { changeRepeat, repeatSheet } from '$lib/server/services/repeats/repeats';
import type { RequestHandler } from './$types';

/** What it bills on a day. */
export const GET: RequestHandler = ({ locals, params, url }) =>
	answer(() => repeatSheet(locals.world, idOf(params.id), url.searchParams.get('on') ?? ''));

/** Other lines, from a day on, or for the occurrence of that day alone. */
export const PUT: RequestHandler = ({ locals, params, request }) =>
	answer(async () => {
		const { from, sheet, only } = await readBody(request);
		changeRepeat(locals.world, idOf(params.id), String(from ?? ''), sheet, only === true);
	});
