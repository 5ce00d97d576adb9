import { orNotFound } from '$lib/server/answers';
import { pdfResponse } from '$lib/server/fileResponse';
import { sheetByToken } from '$lib/server/services/signing/send';
import { sheetPaper } from '$lib/server/services/signing/sheetPaper';
import type { RequestHandler } from './$types';

/** With the signature on it once there is one. */
export const GET: RequestHandler = ({ locals: { world }, params }) =>
	pdfResponse(
		sheetPaper(
			world.db,
			orNotFound(() => sheetByToken(world.db, params.token))
		)!
	);
