import { createReadStream } from 'node:fs';
import { orNotFound } from '$lib/server/answers';
import { backupFile } from '$lib/server/services/keep/backupPage';
import type { RequestHandler } from './$types';
import { bodyOf } from '$lib/server/streamed';

export const GET: RequestHandler = ({ locals, params }) => {
	const { path, bytes } = orNotFound(() => backupFile(locals.world, params.name));
	return new Response(bodyOf(createReadStream(path)), {
		headers: {
			'content-type': 'application/octet-stream',
			'content-length': String(bytes),
			'content-disposition': `attachment; filename="${params.name}"`
		}
	});
};
