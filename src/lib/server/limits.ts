// How much of a request is read, by where it goes: more is refused before any of it is kept.

const KB = 1024;
const MB = 1024 * KB;

/** Bytes a body may have. The first that fits counts; whoever is not signed in has no files to send. */
const BY_ROUTE: readonly (readonly [RegExp, number])[] = [
	[/^\/webhooks\/card$/, MB],
	[/^\/webhooks\//, 20 * KB],
	[/^\/(p|s|r)\//, 64 * KB],
	[/^\/(sign-in|welcome|sign-out)$/, 64 * KB],
	// Photos of a job, several at once.
	[/^\/work\/\d+$/, 105 * MB]
];
/** A file of the largest size that any page takes, and what is posted with it. */
const SIGNED_IN = 27 * MB;

export function mostBytes(path: string, signedIn: boolean): number {
	const most = BY_ROUTE.find(([route]) => route.test(path))?.[1] ?? SIGNED_IN;
	return signedIn || path.startsWith('/webhooks/') ? most : Math.min(most, 64 * KB);
}

/**
 * Whether a request's body may be read as its route takes it: 413 and 411 are answered before any of it is. Browsers and services always say how long
 * it is; who does not say it, and is not signed in, is not listened to.
 */
export function refusedBody(request: Request, path: string, signedIn: boolean): Response | null {
	if (request.method === 'GET' || request.method === 'HEAD') return null;
	const length = request.headers.get('content-length');
	if (length === null)
		return signedIn || request.body === null ? null : refusal(411, 'How long it is was not said.');
	return Number(length) <= mostBytes(path, signedIn)
		? null
		: refusal(413, 'That is more than is taken here.');
}

/** What is not read cannot be followed by anything else on the same line. */
const refusal = (status: number, words: string): Response =>
	new Response(words, { status, headers: { connection: 'close' } });
