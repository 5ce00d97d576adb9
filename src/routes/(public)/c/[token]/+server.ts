import { orNotFound } from '$lib/server/answers';
import { feedFile } from '$lib/server/services/diary/feed';
import type { RequestHandler } from './$types';

/** What a phone subscribes to. */
export const GET: RequestHandler = ({ locals: { world }, params }) =>
	new Response(
		orNotFound(() => feedFile(world, params.token)),
		{
			headers: {
				'content-type': 'text/calendar; charset=utf-8',
				'cache-control': 'private, no-store'
			}
		}
	);
