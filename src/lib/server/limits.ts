// Limits of requests: how much of a body is read, and how fast a link may be asked.
import type { Rule } from './access';

/** What is not read cannot be followed by anything else on the same line. */
const refusal = (status: number, words: string, headers: Record<string, string> = {}): Response =>
	new Response(words, { status, headers: { connection: 'close', ...headers } });

/** Whoever is not signed in has no files to send to a page of the desk, whatever it takes. */
const STRANGER = 64 * 1024;

/**
 * Whether a request's body may be read as its route takes it: 413 and 411 are answered before any of it is. Browsers and services always say how long
 * it is; who does not say it, and is not signed in, is not listened to.
 */
export function refusedBody(
	request: Request,
	rule: Rule | undefined,
	signedIn: boolean
): Response | null {
	if (request.method === 'GET' || request.method === 'HEAD') return null;
	const length = request.headers.get('content-length');
	if (length === null)
		return signedIn || request.body === null ? null : refusal(411, 'How long it is was not said.');
	const takes = rule?.bytes ?? 0;
	// Pages that are open to strangers say themselves how much they take of them.
	const most = signedIn || rule?.who !== 'person' ? takes : Math.min(takes, STRANGER);
	return Number(length) <= most ? null : refusal(413, 'That is more than is taken here.');
}

/** So many within a minute, for each name. */
class Pace {
	#seen = new Map<string, { since: number; count: number }>();
	constructor(private readonly most: number) {}

	/** Whether one more is too many. `now` in milliseconds of the machine's own time. */
	exceeds(name: string, now: number): boolean {
		// What rested for a minute is forgotten, so that strangers cannot fill the memory with names.
		if (this.#seen.size > 10_000)
			for (const [key, { since }] of this.#seen) if (now - since > 60_000) this.#seen.delete(key);
		const seen = this.#seen.get(name);
		if (!seen || now - seen.since > 60_000) {
			this.#seen.set(name, { since: now, count: 1 });
			return false;
		}
		seen.count++;
		return seen.count > this.most;
	}
}

const looks = new Pace(240);
const presses = new Pace(20);

/** A link is asked at a person's pace: looked at often, pressed now and then. More is told to wait. */
export function tooFast(
	rule: Rule | undefined,
	method: string,
	path: string,
	now: number
): Response | null {
	if (rule?.who !== 'link') return null;
	const [, kind = '', token = ''] = path.split('/');
	const pace = method === 'GET' || method === 'HEAD' ? looks : presses;
	return pace.exceeds(`${kind}/${token}`, now)
		? refusal(429, 'That was too often within a minute. Wait a little, and try again.', {
				'retry-after': '60'
			})
		: null;
}
