import { stringify } from 'csv-stringify/sync';
import { orNotFound } from '$lib/server/answers';
import { moverOf } from '$lib/server/services/moving/page';
import type { RequestHandler } from './$types';

/** An empty table with the headings that are looked for. */
export const GET: RequestHandler = ({ params }) => {
	const { kind, columns } = orNotFound(() => moverOf(params.kind));
	return new Response(stringify([columns.map(({ label }) => label)]), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="${kind}.csv"`
		}
	});
};
