import { answer, idOf, readBody } from '$lib/server/answers';
import { saveStartingPoint } from '$lib/server/services/invoices/startingPoints';
import type { RequestHandler } from './$types';

export const PUT: RequestHandler = ({ locals, params, request }) =>
	answer(async () => {
		const { version, name, sheet } = await readBody(request);
		const id = idOf(params.id);
		return {
			version: saveStartingPoint(locals.world, id, Number(version), String(name ?? ''), sheet)
		};
	});
