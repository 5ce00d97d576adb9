// What the gateways to payment services share: asking with a key, and telling what they signed from what they did not.
import { createHmac, timingSafeEqual } from 'node:crypto';
import { z } from 'zod';

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

const newsAnswer = z.object({
	events: z.array(z.unknown()).max(1000),
	next: z.string().nullable()
});
/** So many pages of news are asked for at most. */
const MOST_PAGES = 1000;

/** All that a service has said since a moment, in order: the bodies of its news, as it would have signed them. @throws UnavailableError */
export async function newsSince(ask: ReturnType<typeof asker>, moment: number): Promise<unknown[]> {
	const all: unknown[] = [];
	let after: string | null = null;
	for (let page = 0; page < MOST_PAGES; page++) {
		const { events, next }: z.output<typeof newsAnswer> = await ask(
			'/news',
			`news:${moment}:${after ?? ''}`,
			{ since: moment, ...(after ? { after } : {}) },
			newsAnswer
		);
		all.push(...events);
		if (next === null) break;
		after = next;
	}
	return all;
}

/** What was signed longer ago than this, or will be, is not taken: it may have been overheard. Each attempt is signed anew. Seconds. */
const FRESH = 300;

/**
 * Whether a body was signed by the service a moment ago: HMAC-SHA256 over `time.body`, compared in constant time. How old the event itself is does not
 * count: only its id decides whether it is new. `now` is the machine's own time in milliseconds, whatever day the books are at.
 */
export function isSigned(
	body: string,
	headers: { time: string | null; signature: string | null },
	secret: string,
	now: number
): boolean {
	const { time, signature } = headers;
	if (!time || !signature || !/^\d{1,12}$/.test(time) || !/^[0-9a-f]{64}$/.test(signature))
		return false;
	if (Math.abs(now / 1000 - Number(time)) > FRESH) return false;
	const expected = createHmac('sha256', secret).update(`${time}.${body}`).digest();
	return timingSafeEqual(expected, Buffer.from(signature, 'hex'));
}
