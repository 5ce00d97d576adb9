import { error } from '@sveltejs/kit';
import { orNotFound } from '$lib/server/answers';
import { logoResponse } from '$lib/server/fileResponse';
import { loadLogo } from '$lib/server/services/letterheads/logos';
import { sheetByToken } from '$lib/server/services/signing/send';
import type { RequestHandler } from './$types';

/** The logo of the job sheet behind this link, and of no other. */
export const GET: RequestHandler = ({ locals: { world }, params }) => {
	const { frozen } = orNotFound(() => sheetByToken(world.db, params.token));
	const logo = frozen?.look.logo ?? error(404, 'It has no logo.');
	return logoResponse(orNotFound(() => loadLogo(world.db, logo)));
};
