import { error } from '@sveltejs/kit';
import { orNotFound } from '$lib/server/answers';
import { loadLogo } from '$lib/server/services/letterheads/logos';
import { payPage } from '$lib/server/services/money/payPage';
import type { RequestHandler } from './$types';

/** The logo of the document behind this link, and of no other. */
export const GET: RequestHandler = ({ locals: { world }, params }) => {
	const { view } = orNotFound(() => payPage(world, params.token));
	if (!view.look.logo) error(404, 'This document has no logo.');
	const logo = view.look.logo;
	return new Response(new Uint8Array(orNotFound(() => loadLogo(world.db, logo))), {
		headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=86400' }
	});
};
