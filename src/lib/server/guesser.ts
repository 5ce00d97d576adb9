// Who asks, as far as a request tells it: the machine's address, what its browser carries, and what it is in words.
import type { RequestEvent } from '@sveltejs/kit';
import { browserOf } from './cookies';
import type { Guesser } from './services/business/signIn';

const BROWSERS = [
	[/Edg\//, 'Edge'],
	[/OPR\//, 'Opera'],
	[/Firefox\//, 'Firefox'],
	[/Chrome\/|CriOS\//, 'Chrome'],
	[/Safari\//, 'Safari']
] as const;
const SYSTEMS = [
	[/iPhone/, 'iPhone'],
	[/iPad/, 'iPad'],
	[/Android/, 'Android'],
	[/Windows/, 'Windows'],
	[/Mac OS X|Macintosh/, 'Mac'],
	[/Linux/, 'Linux']
] as const;

/** `Firefox on Android`, as its owner would call it. */
export function deviceOf(request: Request): string {
	const agent = request.headers.get('user-agent') ?? '';
	const browser = BROWSERS.find(([sign]) => sign.test(agent))?.[1] ?? 'A browser';
	const system = SYSTEMS.find(([sign]) => sign.test(agent))?.[1];
	return system ? `${browser} on ${system}` : browser;
}

/** Where the proxies should have said who asks and did not, all who come past them count as one. */
function sourceOf(event: Pick<RequestEvent, 'getClientAddress'>): string {
	try {
		return event.getClientAddress();
	} catch {
		return 'past the proxy';
	}
}

export const guesserOf = (
	event: Pick<RequestEvent, 'getClientAddress' | 'cookies' | 'locals' | 'request'>
): Guesser => ({
	source: sourceOf(event),
	browser: browserOf(event.cookies, event.locals.config),
	device: deviceOf(event.request)
});
