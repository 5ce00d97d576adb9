import { orNotFound } from '$lib/server/answers';
import { quoteFile } from '$lib/server/services/quotes/page';
import type { RequestHandler } from './$types';

/** What counts: the record of what was accepted, or the version that is out. */
export const GET: RequestHandler = ({ locals, params }) => {
	const { name, content } = orNotFound(() => quoteFile(locals.world.db, params.token));
	return new Response(new Uint8Array(content), {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': `inline; filename="${name}"`
		}
	});
};
