import { answer, readBody } from '$lib/server/answers';
import { entriesFor } from '$lib/server/services/prices/entries';
import { savePriceItem } from '$lib/server/services/prices/prices';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, url }) =>
	answer(() => entriesFor(locals.world, (url.searchParams.get('q') ?? '').slice(0, 200)));

/** Saves a typed line to the list in passing. */
export const POST: RequestHandler = ({ locals, request }) =>
	answer(async () => ({ id: savePriceItem(locals.world, null, 1, await readBody(request)) }));
