import { answer, idOf } from '$lib/server/answers';
import { inHandForDraft } from '$lib/server/services/money/useInHand';
import { draftMessage } from '$lib/server/services/invoices/sheetPage';
import type { RequestHandler } from './$types';

/** What the last look before issuing shows: what the payer has in hand, and the message it would go out with. */
export const GET: RequestHandler = ({ locals, params }) =>
	answer(() => {
		const id = idOf(params.id);
		return {
			inHand: inHandForDraft(locals.world, id),
			message: draftMessage(locals.world, id)
		};
	});
