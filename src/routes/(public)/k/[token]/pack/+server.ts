import { error } from '@sveltejs/kit';
import { accountantPack } from '$lib/server/services/reports/pack';
import { notePackTaken, packBehind } from '$lib/server/services/reports/packLinks';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals: { world }, params }) => {
	const pack = packBehind(world, params.token);
	if (!pack) error(404, 'This link opens nothing any more.');
	notePackTaken(world, pack.id);
	return new Response(await accountantPack(world, pack, pack.basis), {
		headers: {
			'content-type': 'application/zip',
			'content-disposition': `attachment; filename="Books ${pack.from} to ${pack.to}.zip"`
		}
	});
};
