import { idOf, orNotFound } from '$lib/server/answers';
import { jobFile } from '$lib/server/services/jobs/files';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params, url }) => {
	const file = orNotFound(() =>
		jobFile(locals.world, idOf(params.id), idOf(params.file), url.searchParams.has('small'))
	);
	// Nothing but a picture is ever opened in the app's own origin.
	const inline = file.type === 'image/jpeg';
	return new Response(new Uint8Array(file.content), {
		headers: {
			'content-type': inline ? file.type : 'application/octet-stream',
			'content-disposition': `${inline ? 'inline' : 'attachment'}; filename*=UTF-8''${encodeURIComponent(file.name)}`,
			'content-security-policy': "default-src 'none'; sandbox"
		}
	});
};
