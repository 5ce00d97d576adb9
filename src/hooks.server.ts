// Every request passes here: the world is opened once, sessions are looked up, nothing private goes out unsigned.
import { building } from '$app/environment';
import { startClockwork } from '$lib/server/clockwork/ticking';
import { readConfig, type Config } from '$lib/server/config';
import { lookOf, SESSION_COOKIE } from '$lib/server/cookies';
import { openWorld } from '$lib/server/open';
import { isSetUp } from '$lib/server/services/business/settings';
import { hasOwner, isSignedIn } from '$lib/server/services/business/signIn';
import { NotFoundError } from '$lib/core/refusals';
import type { World } from '$lib/server/world';
import { redirect, type Handle, type HandleServerError } from '@sveltejs/kit';
import pino from 'pino';

const log = pino({ level: process.env.AXIOMETER_LOG ?? 'info', base: null });
let opened: { world: World; config: Config } | undefined;

function open(): { world: World; config: Config } {
	if (!opened) {
		const config = readConfig(process.env);
		const world = openWorld(config);
		opened = { world, config };
		world.press.warm();
		startClockwork(world, (error) => log.error(error, 'clockwork'));
	}
	return opened;
}

if (!building) open();

const PUBLIC = /^\/(p|s|webhooks|health)(\/|$)/;

export const handle: Handle = async ({ event, resolve }) => {
	const { world, config } = open();
	event.locals.world = world;
	event.locals.config = config;
	event.locals.signedIn = isSignedIn(world, event.cookies.get(SESSION_COOKIE));
	const { pathname } = event.url;

	if (!PUBLIC.test(pathname)) {
		const fresh = !hasOwner(world) || !isSetUp(world);
		if (fresh && pathname !== '/welcome') redirect(303, '/welcome');
		if (!fresh && pathname === '/welcome') redirect(303, '/');
		if (!fresh && !event.locals.signedIn && pathname !== '/sign-in') {
			if (/\/api(\/|$)/.test(pathname)) return new Response('Sign in first.', { status: 401 });
			redirect(303, `/sign-in?to=${encodeURIComponent(pathname + event.url.search)}`);
		}
	}
	const look = lookOf(event.cookies);
	const response = await resolve(event, {
		transformPageChunk: ({ html }) => html.replace('data-mode="device"', `data-mode="${look}"`)
	});
	response.headers.set('X-Content-Type-Options', 'nosniff');
	// Unguessable links must not travel to other hosts. (`no-referrer` would also blank the Origin of our own forms.)
	response.headers.set('Referrer-Policy', 'same-origin');
	// Nothing here belongs into a shared cache or a search engine.
	if (!pathname.startsWith('/_app/')) {
		response.headers.set('Cache-Control', 'no-store');
		response.headers.set('X-Robots-Tag', 'noindex, nofollow');
	}
	return response;
};

export const handleError: HandleServerError = ({ error, event, status, message }) => {
	if (error instanceof NotFoundError) return { message: error.message };
	if (status === 404) return { message: 'There is no such page.' };
	if (status < 500) return { message };
	log.error({ err: error, path: event.url.pathname }, 'unexpected');
	return { message: 'Something went wrong here. What was saved before is safe. Try again.' };
};
