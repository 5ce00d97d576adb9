import { readView } from '$lib/core/lists/address';
import { orNotFound } from '$lib/server/answers';
import { listCsv } from '$lib/server/services/desk/lists/engine';
import { sourceNamed } from '$lib/server/services/desk/lists/rows';
import { streamed } from '$lib/server/streamed';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params, url }) => {
	const source = orNotFound(() => sourceNamed(params.list));
	const view = readView(source.spec, url.searchParams);
	return streamed(listCsv(locals.world, source, view), 'text/csv', `${source.spec.name}.csv`);
};
