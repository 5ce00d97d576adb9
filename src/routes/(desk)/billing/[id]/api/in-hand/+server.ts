import { answer, idOf } from '$lib/server/answers';
import { creditForDraft } from '$lib/server/services/money/payerPayments';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params }) =>
	answer(() => ({ inHand: creditForDraft(locals.world, idOf(params.id)) }));
