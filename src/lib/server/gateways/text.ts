// Text messages, over a gateway's HTTP interface. A key is taken once, so asking again is always safe.
export type TextOutcome =
	| { state: 'sent' }
	/** The gateway said no for good. */
	| { state: 'refused'; reason: string }
	/** It could not be reached, or could not just now. */
	| { state: 'later'; reason: string };

export interface TextGateway {
	send(message: { key: string; to: string; text: string }): Promise<TextOutcome>;
}

export function httpTextGateway(base: string, secret: string): TextGateway {
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
					body: JSON.stringify({ to, text }),
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
