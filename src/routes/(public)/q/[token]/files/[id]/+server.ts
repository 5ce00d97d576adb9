import { idOf, orNotFound } from '$lib/server/answers';
import { fileResponse } from '$lib/server/fileResponse';
import { fileWithQuote } from '$lib/server/services/quotes/page';
import type { RequestHandler } from './$types';

/** A file that goes out with the quote behind this link. */
export const GET: RequestHandler = ({ locals: { world }, params, url }) =>
	fileResponse(
		orNotFound(() =>
			fileWithQuote(world, params.token, idOf(params.id), url.searchParams.has('small'))
		)
	);
