import { answer } from '$lib/server/answers';
import { unbilledOf } from '$lib/server/services/billing/toBill';
import type { RequestHandler } from './$types';

/** What of a customer's jobs could stand on this invoice too. */
export const GET: RequestHandler = ({ locals, url }) =>
	answer(() => unbilledOf(locals.world, Number(url.searchParams.get('customer')) || 0));
