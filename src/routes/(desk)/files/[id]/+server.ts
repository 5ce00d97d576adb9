import { answer, idOf, orNotFound, readBody } from '$lib/server/answers';
import { fileResponse } from '$lib/server/fileResponse';
import { changeFile, loadFile } from '$lib/server/services/files/files';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params, url }) =>
	fileResponse(
		orNotFound(() => loadFile(locals.world, idOf(params.id), url.searchParams.has('small')))
	);

export const PUT: RequestHandler = ({ request, locals, params }) =>
	answer(async () => {
		changeFile(locals.world, idOf(params.id), await readBody(request));
	});
