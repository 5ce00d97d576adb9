import { idOf, orNotFound } from '$lib/server/answers';
import { fileResponse } from '$lib/server/fileResponse';
import { fileBehindLink } from '$lib/server/services/money/payPage';
import type { RequestHandler } from './$types';

/** A file that goes out with the document behind this link. */
export const GET: RequestHandler = ({ locals: { world }, params, url }) =>
	fileResponse(
		orNotFound(() =>
			fileBehindLink(world, params.token, idOf(params.id), url.searchParams.has('small'))
		)
	);
