import { json } from '@sveltejs/kit';
import { answer, idOf, readBody } from '$lib/server/answers';
import { FieldError } from '$lib/core/refusals';
import { documentsToShow, drawOn } from '$lib/server/services/desk/letterheadPreview';
import { checkLook, saveLook } from '$lib/server/services/letterheads/letterheads';
import type { RequestHandler } from './$types';

/** The documents it can be shown with: the newest, or those that match `?q=`. */
export const GET: RequestHandler = ({ locals, url }) =>
	json(documentsToShow(locals.world.db, url.searchParams.get('q') ?? ''));

export const PUT: RequestHandler = ({ request, locals, params }) =>
	answer(async () => {
		const { version, look } = await readBody(request);
		return { version: saveLook(locals.world, idOf(params.id), Number(version), look) };
	});

/** The PDF of a document on a look that need not have been kept. */
export const POST: RequestHandler = async ({ request, locals }) => {
	let pdf: Buffer | null = null;
	const refused = await answer(async () => {
		const { look: typed, about } = await readBody(request);
		const checked = checkLook(locals.world.db, locals.world.clock.today(), typed);
		if ('problems' in checked) throw new FieldError(checked.problems);
		pdf = await drawOn(locals.world, checked.look, typeof about === 'number' ? about : null);
	});
	return pdf
		? new Response(new Uint8Array(pdf), { headers: { 'content-type': 'application/pdf' } })
		: refused;
};
