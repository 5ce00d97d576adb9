import { error } from '@sveltejs/kit';
import { viewDocument } from '$lib/core/documents/view';
import { idOf, orNotFound } from '$lib/server/answers';
import { copyPdf, signedPdf, storedPdf } from '$lib/server/services/desk/documents';
import { draftPreview } from '$lib/server/services/invoices/sheetPage';
import { drawDocument } from '$lib/server/services/letterheads/dress';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals, params, url }) => {
	const id = idOf(params.id);
	const file = url.searchParams.has('copy')
		? await orNotFound(() => copyPdf(locals.world, id))
		: url.searchParams.has('signed')
			? orNotFound(() => signedPdf(locals.world, id))
			: (storedPdf(locals.world, id) ?? (await drawDraft()));
	return new Response(new Uint8Array(file.content), {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': `${url.searchParams.has('download') ? 'attachment' : 'inline'}; filename="${file.name}"`
		}
	});

	async function drawDraft() {
		const preview = orNotFound(() => draftPreview(locals.world, id));
		if (!preview) error(404, 'There is nothing on this draft yet.');
		const view = viewDocument(preview.frozen, preview.figures, '', 'draft');
		return {
			name: 'Draft.pdf',
			content: await drawDocument(locals.world, view, null)
		};
	}
};
