import { answer, idOf, orNotFound } from '$lib/server/answers';
import { onePdf } from '$lib/server/services/many/download';
import { manyRun } from '$lib/server/services/many/page';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals: { world }, params }) => {
	const id = idOf(params.id);
	orNotFound(() => manyRun(world, id));
	let pdf: Uint8Array<ArrayBuffer> | null = null;
	const refused = await answer(async () => (pdf = await onePdf(world, id)));
	return pdf
		? new Response(pdf, {
				headers: {
					'content-type': 'application/pdf',
					'content-disposition': `inline; filename="Documents ${world.clock.today()}.pdf"`
				}
			})
		: refused;
};
