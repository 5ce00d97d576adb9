import { json } from '@sveltejs/kit';
import { readView } from '$lib/core/lists/address';
import { orNotFound } from '$lib/server/answers';
import { sumList } from '$lib/server/services/desk/lists/engine';
import { sourceNamed } from '$lib/server/services/desk/lists/rows';
import type { RequestHandler } from './$types';

/** What all that matches comes to, asked for once the page is there. */
export const GET: RequestHandler = ({ locals, params, url }) => {
	const source = orNotFound(() => sourceNamed(params.list));
	return json(sumList(locals.world, source, readView(source.spec, url.searchParams)));
};
