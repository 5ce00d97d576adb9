import { orNotFound } from '$lib/server/answers';
import { loadLogo } from '$lib/server/services/letterheads/logos';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params }) =>
	new Response(new Uint8Array(orNotFound(() => loadLogo(locals.world.db, params.hash))), {
		// Named by its content: it never changes.
		headers: {
			'content-type': 'image/png',
			'cache-control': 'private, max-age=31536000, immutable'
		}
	});
