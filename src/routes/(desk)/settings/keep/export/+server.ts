import { exported } from '$lib/server/services/keep/exporting';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals }) =>
	new Response(exported(locals.world), {
		headers: {
			'content-type': 'application/zip',
			'content-disposition': `attachment; filename="Axiometer ${locals.world.clock.today()}.zip"`
		}
	});
