import { error } from '@sveltejs/kit';
import { idOf, orNotFound } from '$lib/server/answers';
import { paperOf } from '$lib/server/services/letterheads/dress';
import { runViews, statementPdf } from '$lib/server/services/owed/statementRuns';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals, params, url }) => {
	const { world } = locals;
	const one = url.searchParams.get('one');
	const made = runViews(world, idOf(params.run));
	if (one === null && made.length === 0) error(404, 'This run has made nothing yet.');
	const pdf =
		one === null
			? await world.press.statements(
					made.map(({ view }) => view),
					made.map(({ view, token, payerId }) => ({
						payUrl: view.bank ? `${world.origin}/s/${token}` : null,
						madeAt: world.clock.now(),
						...paperOf(world.db, payerId)
					}))
				)
			: orNotFound(() => statementPdf(world, idOf(one)));
	return new Response(new Uint8Array(pdf), {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': 'inline; filename="Statements.pdf"'
		}
	});
};
