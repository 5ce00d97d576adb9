import { idOf, orNotFound } from '$lib/server/answers';
import { exported } from '$lib/server/services/keep/exporting';
import { whatIsKept } from '$lib/server/services/keep/person';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params }) => {
	const id = idOf(params.id);
	orNotFound(() => whatIsKept(locals.world, id));
	return new Response(exported(locals.world, id), {
		headers: {
			'content-type': 'application/zip',
			'content-disposition': `attachment; filename="Customer ${id} ${locals.world.clock.today()}.zip"`
		}
	});
};
