import { bankEvent } from '$lib/server/gateways/bank';
import { isSigned } from '$lib/server/gateways/asking';
import { takeNews } from '$lib/server/answers';
import { receiveBankEvent } from '$lib/server/services/money/cardEvents';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import type { RequestHandler } from './$types';

/** Only what the pay-by-bank service signed is taken; what is not understood is refused and will be sent again. */
export const POST: RequestHandler = async ({ request, locals }) => {
	const { world, config } = locals;
	const body = await request.text();
	const headers = {
		time: request.headers.get('bank-time'),
		signature: request.headers.get('bank-signature')
	};
	const signed = isSigned(body, headers, config.bankSecret, Date.now());
	const answer = takeNews(signed, () =>
		receiveBankEvent(world, bankEvent.parse(JSON.parse(body)), body)
	);
	// The messages are written already; sending them must not hold the service up.
	if (answer.ok) deliverSoon(world);
	return answer;
};
