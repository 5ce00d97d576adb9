import { isSigned } from '$lib/server/gateways/asking';
import { textEvent } from '$lib/server/gateways/text';
import { takeNews } from '$lib/server/answers';
import { receiveTextEvent } from '$lib/server/services/messages/replies';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import type { RequestHandler } from './$types';

/** Only what the text gateway signed is taken; what is not understood is refused and will be sent again. */
export const POST: RequestHandler = async ({ request, locals }) => {
	const { world, config } = locals;
	const body = await request.text();
	const headers = {
		time: request.headers.get('text-time'),
		signature: request.headers.get('text-signature')
	};
	const signed = isSigned(body, headers, config.textSecret, Date.now());
	const answer = takeNews(signed, () => receiveTextEvent(world, textEvent.parse(JSON.parse(body))));
	if (answer.ok) deliverSoon(world);
	return answer;
};
