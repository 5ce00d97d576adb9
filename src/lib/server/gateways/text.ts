// Text messages, over a gateway's HTTP interface. A key is taken once, so asking again is always safe. What comes back is told by a
// signed webhook: an answer, or that a number does not exist any more.
import { z } from 'zod';

export const textEvent = z.discriminatedUnion('type', [
	z.object({
		id: z.string().min(1).max(100),
		type: z.literal('reply'),
		from: z.string().min(1).max(40),
		text: z.string().max(5000)
	}),
	z.object({
		id: z.string().min(1).max(100),
		type: z.literal('undelivered'),
		/** The key it was sent with. */
		key: z.string().min(1).max(200),
		reason: z.string().max(300)
	})
]);
export type TextEvent = z.output<typeof textEvent>;

export type TextOutcome =
	| { state: 'sent' }
	/** The gateway said no for good. */
	| { state: 'refused'; reason: string }
	/** It could not be reached, or could not just now. */
	| { state: 'later'; reason: string };

export interface TextGateway {
	send(message: { key: string; to: string; text: string }): Promise<TextOutcome>;
}

/** @param webhookUrl where the gateway tells what came back */
export function httpTextGateway(base: string, secret: string, webhookUrl: string): TextGateway {
	return {
		async send({ key, to, text }) {
			try {
				const response = await fetch(`${base}/messages`, {
					method: 'POST',
					headers: {
						'content-type': 'application/json',
						authorization: `Bearer ${secret}`,
						'idempotency-key': key
					},
					body: JSON.stringify({ to, text, webhookUrl }),
					signal: AbortSignal.timeout(20_000)
				});
				if (response.ok) return { state: 'sent' };
				const reason = `the text gateway answered ${response.status}`;
				const forGood = response.status === 400 || response.status === 422;
				return { state: forGood ? 'refused' : 'later', reason };
			} catch {
				return { state: 'later', reason: 'the text gateway could not be reached' };
			}
		}
	};
}
