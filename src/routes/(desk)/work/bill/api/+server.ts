import { answer, readBody } from '$lib/server/answers';
import { planBillRun } from '$lib/server/services/billing/runPlan';
import type { RequestHandler } from './$types';

/** What a run over this choice would make: asked at each change of the choice. */
export const POST: RequestHandler = ({ locals, request }) =>
	answer(async () => planBillRun(locals.world, await readBody(request)));
