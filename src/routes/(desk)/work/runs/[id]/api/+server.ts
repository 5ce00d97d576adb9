import { answer, idOf } from '$lib/server/answers';
import { billRun } from '$lib/server/services/billing/billRun';
import type { RequestHandler } from './$types';

/** How far a run is. */
export const GET: RequestHandler = ({ locals, params }) =>
	answer(() => {
		const run = billRun(locals.world, idOf(params.id));
		return { state: run.state, done: run.done, of: run.steps.length };
	});
