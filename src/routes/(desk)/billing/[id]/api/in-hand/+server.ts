import { answer, idOf } from '$lib/server/answers';
import { inHandForDraft } from '$lib/server/services/money/useInHand';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params }) =>
	answer(() => ({ inHand: inHandForDraft(locals.world, idOf(params.id)) }));
