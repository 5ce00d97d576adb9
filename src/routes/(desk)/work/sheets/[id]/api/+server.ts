import { answer, idOf, readBody } from '$lib/server/answers';
import { saveSheet } from '$lib/server/services/signing/sheets';
import type { RequestHandler } from './$types';

/** Keeps what is written. */
export const PUT: RequestHandler = ({ locals: { world }, params, request }) =>
	answer(async () => {
		const { version, written } = await readBody(request);
		return { version: saveSheet(world, idOf(params.id), Number(version), written) };
	});
