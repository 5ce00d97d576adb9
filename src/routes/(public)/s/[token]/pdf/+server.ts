import { orNotFound } from '$lib/server/answers';
import { statementFile } from '$lib/server/services/owed/statementPage';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params }) => {
	const content = orNotFound(() => statementFile(locals.world, params.token));
	return new Response(new Uint8Array(content), {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': 'inline; filename="Statement.pdf"'
		}
	});
};
