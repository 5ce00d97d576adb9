// The card processor: a hosted payment page, signed webhooks, refunds. Card numbers never come here.
import { z } from 'zod';
import { asker, newsSince, UnavailableError } from './asking';

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
	/** A firm's commercial card bears its fee on top; a consumer's never does. */
	passOnFee?: boolean;
}

export interface Checkout {
	id: string;
	url: string;
}

export class CardUnavailableError extends UnavailableError {}

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
	/** What it has said since a moment (milliseconds), for books that come from a backup. @throws CardUnavailableError */
	newsSince(moment: number): Promise<unknown[]>;
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
	const ask = asker(
		base,
		secret,
		(reason) => new CardUnavailableError(`the card processor ${reason}`)
	);
	return {
		openCheckout: ({ key, ...body }) =>
			ask('/checkouts', key, { ...body, currency: 'GBP' }, checkoutAnswer),
		refund: ({ key, checkoutId, amount }) =>
			ask(`/checkouts/${encodeURIComponent(checkoutId)}/refunds`, key, { amount }, refundAnswer),
		charge: ({ key, ...body }) => ask('/charges', key, { ...body, currency: 'GBP' }, chargeAnswer),
		async forgetCard(token) {
			const path = `/cards/${encodeURIComponent(token)}/forget`;
			await ask(path, `forget:${token}`, {}, z.object({}));
		},
		newsSince: (moment) => newsSince(ask, moment)
	};
}

export const cardEvent = z.object({
	id: z.string().min(1).max(100),
	type: z.enum(['payment.pending', 'payment.settled', 'payment.declined', 'refund.settled']),
	checkout: z.string().min(1),
	/** Pence. */
	amount: z.number().int().positive(),
	fee: z.number().int().nonnegative(),
	/** What a commercial card bore on top of the amount, at most the fee. */
	feeOnTop: z.number().int().nonnegative().optional(),
	refund: z.string().optional(),
	/** A card that may be kept. */
	card: z.object({ token: z.string().min(1).max(200), lastDigits: z.string().max(8) }).optional()
});
export type CardEvent = z.output<typeof cardEvent>;

/** A customer told its bank that a payment was not right: by when the seller may answer, and how it ended. */
export const disputeEvent = z.object({
	id: z.string().min(1).max(100),
	type: z.enum(['dispute.opened', 'dispute.won', 'dispute.lost']),
	checkout: z.string().min(1),
	dispute: z.string().min(1).max(100),
	/** Pence. */
	amount: z.number().int().positive(),
	/** What the customer says, in the processor's words. */
	reason: z.string().max(300).default(''),
	/** The last day on which evidence is taken. */
	respondBy: z.iso.date()
});
export type DisputeEvent = z.output<typeof disputeEvent>;

/** Money sent to the seller's bank, and what it is made of, as it always should be. Amounts in pence; a refund's is below zero. */
export const payoutEvent = z.object({
	id: z.string().min(1).max(100),
	type: z.literal('payout.paid'),
	payout: z.string().min(1).max(100),
	amount: z.number().int().positive(),
	reference: z.string().min(1).max(100),
	parts: z
		.array(
			z.object({
				checkout: z.string().min(1),
				type: z.enum(['payment', 'refund']),
				amount: z.number().int(),
				fee: z.number().int().nonnegative()
			})
		)
		.max(5000)
		.optional()
});
export type PayoutEvent = z.output<typeof payoutEvent>;
