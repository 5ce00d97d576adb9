import { redirect } from '@sveltejs/kit';
import { viewDocument } from '$lib/core/documents/view';
import { idOf, orNotFound } from '$lib/server/answers';
import { documentState } from '$lib/server/services/desk/documents';
import { draftPreview } from '$lib/server/services/invoices/sheetPage';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
	const id = idOf(params.id);
	if (documentState(locals.world, id) === 'issued') redirect(303, `/billing/${id}`);
	const preview = orNotFound(() => draftPreview(locals.world, id));
	return { id, view: preview && viewDocument(preview.frozen, preview.figures, '', 'draft') };
};
