import { answer, idOf, readBody } from '$lib/server/answers';
import { savePriceItem } from '$lib/server/services/prices/prices';
import type { RequestHandler } from './$types';

export const PUT: RequestHandler = ({ locals, params, request }) =>
	answer(async () => {
		const { version, entry } = await readBody(request);
		return { id: savePriceItem(locals.world, idOf(params.id), Number(version), entry) };
	});
