// The card processor: a hosted payment page, signed webhooks, refunds. Card numbers never come here.
import { createHmac, timingSafeEqual } from 'node:crypto';
import { z } from 'zod';

export interface CheckoutRequest {
	/** Names the attempt: asked twice, the processor answers with the same checkout. */
	key: string;
	/** Pence. */
	amount: number;
	description: string;
	returnUrl: string;
	webhookUrl: string;
	/** The customer lets the card be kept: its token comes with the news that the payment settled. */
	keepCard?: boolean;
}

export interface Checkout {
	id: string;
	url: string;
}

export class CardUnavailableError extends Error {}

export interface CardGateway {
	/** @throws CardUnavailableError where the processor cannot be reached; then nothing was begun. */
	openCheckout(request: CheckoutRequest): Promise<Checkout>;
	/** @throws CardUnavailableError */
	refund(request: { key: string; checkoutId: string; amount: number }): Promise<{ id: string }>;
	/**
	 * Charges a kept card. Asked twice with the same key, it is charged once; what becomes of it comes as an event of
	 * the checkout it names. @throws CardUnavailableError: then it is asked again, with the same key.
	 */
	charge(
		request: ChargeRequest
	): Promise<{ id: string; state: 'settled' | 'declined' | 'pending' }>;
	/** Forgets a kept card. One that is not known any more is forgotten already. @throws CardUnavailableError */
	forgetCard(token: string): Promise<void>;
}

export interface ChargeRequest {
	key: string;
	token: string;
	/** Pence. */
	amount: number;
	description: string;
	webhookUrl: string;
}

const checkoutAnswer = z.object({ id: z.string().min(1), url: z.url() });
const refundAnswer = z.object({ id: z.string().min(1) });
const chargeAnswer = z.object({
	id: z.string().min(1),
	state: z.enum(['settled', 'declined', 'pending'])
});

export function httpCardGateway(base: string, secret: string): CardGateway {
	async function ask<T extends z.ZodType>(
		path: string,
		key: string,
		body: object,
		answer: T
	): Promise<z.output<T>> {
		let response: Response;
		try {
			response = await fetch(`${base}${path}`, {
				method: 'POST',
				headers: {
					'content-type': 'application/json',
					authorization: `Bearer ${secret}`,
					'idempotency-key': key
				},
				body: JSON.stringify(body),
				signal: AbortSignal.timeout(20_000)
			});
		} catch {
			throw new CardUnavailableError('the card processor could not be reached');
		}
		if (!response.ok)
			throw new CardUnavailableError(`the card processor answered ${response.status}`);
		return answer.parse(await response.json());
	}
	return {
		openCheckout: ({ key, ...body }) =>
			ask('/checkouts', key, { ...body, currency: 'GBP' }, checkoutAnswer),
		refund: ({ key, checkoutId, amount }) =>
			ask(`/checkouts/${encodeURIComponent(checkoutId)}/refunds`, key, { amount }, refundAnswer),
		charge: ({ key, ...body }) => ask('/charges', key, { ...body, currency: 'GBP' }, chargeAnswer),
		async forgetCard(token) {
			const path = `/cards/${encodeURIComponent(token)}/forget`;
			await ask(path, `forget:${token}`, {}, z.object({}));
		}
	};
}

export const cardEvent = z.object({
	id: z.string().min(1).max(100),
	type: z.enum(['payment.pending', 'payment.settled', 'payment.declined', 'refund.settled']),
	checkout: z.string().min(1),
	/** Pence. */
	amount: z.number().int().positive(),
	fee: z.number().int().nonnegative(),
	refund: z.string().optional(),
	/** A card that may be kept. */
	card: z.object({ token: z.string().min(1).max(200), lastDigits: z.string().max(8) }).optional()
});
export type CardEvent = z.output<typeof cardEvent>;

/**
 * Whether the body was signed by the processor: HMAC-SHA256 over `time.body`, compared in constant time.
 * An old event sent again does no harm, because each is taken once by its id.
 */
export function isSignedByProcessor(
	body: string,
	headers: { time: string | null; signature: string | null },
	secret: string
): boolean {
	const { time, signature } = headers;
	if (!time || !signature || !/^\d{1,12}$/.test(time) || !/^[0-9a-f]{64}$/.test(signature))
		return false;
	const expected = createHmac('sha256', secret).update(`${time}.${body}`).digest();
	return timingSafeEqual(expected, Buffer.from(signature, 'hex'));
}
