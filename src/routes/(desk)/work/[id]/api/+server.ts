import { answer, idOf, readBody } from '$lib/server/answers';
import { saveJob } from '$lib/server/services/jobs/jobs';
import type { RequestHandler } from './$types';

export const PUT: RequestHandler = ({ locals, params, request }) =>
	answer(async () => {
		const { version, job } = await readBody(request);
		return { version: saveJob(locals.world, idOf(params.id), Number(version), job) };
	});
