import { error } from '@sveltejs/kit';
import { idOf, orNotFound } from '$lib/server/answers';
import { loadSheet } from '$lib/server/services/signing/sheets';
import { sheetPaper } from '$lib/server/services/signing/sheetPaper';
import { pdfResponse } from '$lib/server/fileResponse';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals: { world }, params }) => {
	const sheet = orNotFound(() => loadSheet(world.db, idOf(params.id)));
	return pdfResponse(sheetPaper(world.db, sheet) ?? error(404, 'It is not finished yet.'));
};
