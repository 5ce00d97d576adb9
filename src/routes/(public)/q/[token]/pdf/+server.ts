import { orNotFound } from '$lib/server/answers';
import { pdfResponse } from '$lib/server/fileResponse';
import { quoteFile } from '$lib/server/services/quotes/page';
import type { RequestHandler } from './$types';

/** What counts: the record of what was accepted, or the version that is out. */
export const GET: RequestHandler = ({ locals, params }) =>
	pdfResponse(orNotFound(() => quoteFile(locals.world.db, params.token)));
