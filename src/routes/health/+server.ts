import { health } from '$lib/server/health';
import type { RequestHandler } from './$types';

/** Says that the app is up, and what is wrong: 503 where it cannot do its work. */
export const GET: RequestHandler = ({ locals }) => {
	const { wrong, look } = health(locals.world, Date.now());
	const words = [wrong.length ? 'trouble' : 'ok', ...wrong, ...look].join('\n');
	return new Response(words, {
		status: wrong.length ? 503 : 200,
		headers: {
			'content-type': 'text/plain; charset=utf-8',
			// Known beforehand, so that so little is not compressed.
			'content-length': String(Buffer.byteLength(words))
		}
	});
};
