import { idOf, orNotFound } from '$lib/server/answers';
import { buildStatement, readStatementOptions } from '$lib/server/services/owed/statements';
import { paperOf } from '$lib/server/services/letterheads/dress';
import { statementChoice } from '$lib/ui/owed/choice';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals, url }) => {
	const { world } = locals;
	const { options } = statementChoice(url.searchParams, world.clock.today());
	const payerId = idOf(url.searchParams.get('of') ?? '');
	const { view } = orNotFound(() => buildStatement(world, payerId, readStatementOptions(options)));
	const pdf = await world.press.statements(
		[view],
		[{ payUrl: null, madeAt: world.clock.now(), ...paperOf(world.db, payerId) }]
	);
	return new Response(new Uint8Array(pdf), {
		headers: {
			'content-type': 'application/pdf',
			'content-disposition': 'inline; filename="Statement.pdf"'
		}
	});
};
