import { idOf, orNotFound } from '$lib/server/answers';
import { applicationView } from '$lib/server/services/billing/applications';
import { drawDocument } from '$lib/server/services/letterheads/dress';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals, params }) => {
	const { world } = locals;
	const view = orNotFound(() => applicationView(world, idOf(params.id), idOf(params.stage)));
	const pdf = await drawDocument(world, view, null);
	return new Response(new Uint8Array(pdf), {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': `inline; filename="Application-${view.number}.pdf"`
		}
	});
};
