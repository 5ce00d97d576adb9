import { idOf, orNotFound } from '$lib/server/answers';
import { pdfsOf } from '$lib/server/services/many/download';
import { manyRun } from '$lib/server/services/many/page';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params }) => {
	const id = idOf(params.id);
	orNotFound(() => manyRun(locals.world, id));
	return new Response(pdfsOf(locals.world, id), {
		headers: {
			'content-type': 'application/zip',
			'content-disposition': `attachment; filename="Documents ${locals.world.clock.today()}.zip"`
		}
	});
};
