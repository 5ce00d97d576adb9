import { error } from '@sveltejs/kit';
import { idOf } from '$lib/server/answers';
import { letterFile } from '$lib/server/services/chasing/messages';
import { NotFoundError } from '$lib/core/refusals';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals, params }) => {
	try {
		const pdf = await letterFile(locals.world, idOf(params.id));
		return new Response(new Uint8Array(pdf), {
			headers: {
				'content-type': 'application/pdf',
				'content-disposition': 'inline; filename="Letter.pdf"'
			}
		});
	} catch (problem) {
		if (problem instanceof NotFoundError) error(404, problem.message);
		throw problem;
	}
};
