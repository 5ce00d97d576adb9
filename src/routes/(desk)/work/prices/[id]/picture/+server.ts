import { idOf, orNotFound } from '$lib/server/answers';
import { pricePicture } from '$lib/server/services/prices/pictures';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params }) => {
	const { type, content } = orNotFound(() => pricePicture(locals.world, idOf(params.id)));
	return new Response(new Uint8Array(content), { headers: { 'content-type': type } });
};
