// What the gateways to payment services share: asking with a key, and telling what they signed from what they did not.
import { createHmac, timingSafeEqual } from 'node:crypto';
import type { z } from 'zod';

/** An outside service cannot be reached, or says no: nothing was begun. */
export class UnavailableError extends Error {}

/** Asks a service in JSON; the same key again is the same request to it. */
export function asker(
	base: string,
	secret: string,
	unavailable: (reason: string) => UnavailableError
) {
	return async function ask<T extends z.ZodType>(
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
			throw unavailable('could not be reached');
		}
		if (!response.ok) throw unavailable(`answered ${response.status}`);
		return answer.parse(await response.json());
	};
}

/**
 * Whether a body was signed by the service: HMAC-SHA256 over `time.body`, compared in constant time. An old event sent
 * again does no harm, because each is taken once by its id.
 */
export function isSigned(
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
