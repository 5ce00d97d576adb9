import { cardEvent, disputeEvent, payoutEvent } from '$lib/server/gateways/card';
import { isSigned } from '$lib/server/gateways/asking';
import { takeNews } from '$lib/server/answers';
import { receiveDispute } from '$lib/server/services/money/cardDisputes';
import { receiveCardEvent } from '$lib/server/services/money/cardEvents';
import { receivePayout } from '$lib/server/services/money/payouts';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import type { RequestHandler } from './$types';

/** Only what the processor signed is taken; what is not understood is refused and will be sent again. */
export const POST: RequestHandler = async ({ request, locals }) => {
	const { world, config } = locals;
	const body = await request.text();
	const headers = {
		time: request.headers.get('card-time'),
		signature: request.headers.get('card-signature')
	};
	const signed = isSigned(body, headers, config.cardSecret, Date.now());
	const answer = takeNews(signed, () => {
		const news: unknown = JSON.parse(body);
		const payout = payoutEvent.safeParse(news);
		const dispute = disputeEvent.safeParse(news);
		if (payout.success) receivePayout(world, payout.data, body);
		else if (dispute.success) receiveDispute(world, dispute.data, body);
		else receiveCardEvent(world, cardEvent.parse(news), body);
	});
	// The messages are written already; sending them must not hold the service up.
	if (answer.ok) deliverSoon(world);
	return answer;
};
