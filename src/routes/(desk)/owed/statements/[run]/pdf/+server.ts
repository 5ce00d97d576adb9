import { error } from '@sveltejs/kit';
import { idOf, orNotFound } from '$lib/server/answers';
import { drawOnThread } from '$lib/server/documents/pdfThreads';
import { runViews, statementPdf } from '$lib/server/services/owed/statements';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals, params, url }) => {
	const { world } = locals;
	const one = url.searchParams.get('one');
	const made = runViews(world, idOf(params.run));
	if (one === null && made.length === 0) error(404, 'This run has made nothing yet.');
	const pdf =
		one === null
			? await drawOnThread(
					made.map(({ view }) => view),
					{ payUrl: null, madeAt: world.clock.now() },
					made.map(({ view, token }) => (view.bank ? `${world.origin}/s/${token}` : null))
				)
			: orNotFound(() => statementPdf(world, idOf(one)));
	return new Response(new Uint8Array(pdf), {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': 'inline; filename="Statements.pdf"'
		}
	});
};
