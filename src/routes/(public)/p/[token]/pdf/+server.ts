import { orNotFound } from '$lib/server/answers';
import { noteOpened, payPagePdf } from '$lib/server/services/money/payPage';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params }) => {
	const file = orNotFound(() => payPagePdf(locals.world, params.token));
	if (!locals.signedIn) noteOpened(locals.world, params.token, 'pdfOpened');
	return new Response(new Uint8Array(file.content), {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': `inline; filename="${file.name}"`
		}
	});
};
