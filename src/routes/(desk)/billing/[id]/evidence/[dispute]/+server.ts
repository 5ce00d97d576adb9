import { error } from '@sveltejs/kit';
import { idOf } from '$lib/server/answers';
import { disputeEvidence } from '$lib/server/services/money/cardDisputes';
import { NotFoundError } from '$lib/core/refusals';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals, params }) => {
	try {
		const { name, body } = await disputeEvidence(locals.world, idOf(params.dispute));
		return new Response(body, {
			headers: {
				'content-type': 'application/zip',
				'content-disposition': `attachment; filename="${name}"`
			}
		});
	} catch (problem) {
		if (problem instanceof NotFoundError) error(404, problem.message);
		throw problem;
	}
};
