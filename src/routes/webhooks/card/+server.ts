import { cardEvent, isSignedByProcessor } from '$lib/server/gateways/card';
import { receiveCardEvent } from '$lib/server/services/cards';
import { NotFoundError } from '$lib/server/services/errors';
import { deliverDue } from '$lib/server/services/deliver';
import type { RequestHandler } from './$types';

/** Only what the processor signed is taken; what is not understood is refused and will be sent again. */
export const POST: RequestHandler = async ({ request, locals }) => {
	const { world, config } = locals;
	const body = await request.text();
	const headers = {
		time: request.headers.get('card-time'),
		signature: request.headers.get('card-signature')
	};
	if (body.length > 20_000 || !isSignedByProcessor(body, headers, config.cardSecret))
		return new Response('not signed', { status: 401 });
	const parsed = cardEvent.safeParse(JSON.parse(body));
	if (!parsed.success) return new Response('not understood', { status: 400 });
	try {
		receiveCardEvent(world, parsed.data, body);
	} catch (problem) {
		if (problem instanceof NotFoundError) return new Response('not known', { status: 404 });
		throw problem;
	}
	// The messages are written already; sending them must not hold the processor up.
	void deliverDue(world);
	return new Response('taken');
};
