import { error } from '@sveltejs/kit';
import { orNotFound } from '$lib/server/answers';
import { logoResponse } from '$lib/server/fileResponse';
import { loadLogo } from '$lib/server/services/letterheads/logos';
import { payPage } from '$lib/server/services/money/payPage';
import type { RequestHandler } from './$types';

/** The logo of the document behind this link, and of no other. */
export const GET: RequestHandler = ({ locals: { world }, params }) => {
	const { view } = orNotFound(() => payPage(world, params.token));
	const logo = view.look.logo ?? error(404, 'This document has no logo.');
	return logoResponse(orNotFound(() => loadLogo(world.db, logo)));
};
