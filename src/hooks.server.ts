// Every request passes here: the world is opened once, sessions are looked up, nothing private goes out unsigned.
import { building } from '$app/environment';
import { startClockwork } from '$lib/server/clockwork/ticking';
import { readConfig, type Config } from '$lib/server/config';
import { lookOf, sessionOf } from '$lib/server/cookies';
import { HeldError, holdFolder } from '$lib/server/db/hold';
import { LockedError } from '$lib/server/db/secrets';
import { troubleOf } from '$lib/server/db/trouble';
import { MigrationError } from '$lib/server/db/migrate';
import { DamagedError, openWorld } from '$lib/server/open';
import { LostBooksError, setupCode } from '$lib/server/services/business/claim';
import { tokenBehind } from '$lib/server/services/business/links';
import { isSetUp } from '$lib/server/services/business/settings';
import { hasOwner } from '$lib/server/services/business/signIn';
import { whoIsSignedIn } from '$lib/server/services/business/sessions';
import { NotFoundError } from '$lib/core/refusals';
import { mayDo, startOf } from '$lib/core/people/roles';
import { ruleOf } from '$lib/server/access';
import { pathForLog } from '$lib/server/answers';
import { asActor } from '$lib/server/actor';
import { refusedBody, tooFast } from '$lib/server/limits';
import { unsafe } from '$lib/server/unsafe';
import type { World } from '$lib/server/world';
import { redirect, type Handle, type HandleServerError } from '@sveltejs/kit';
import pino from 'pino';

/** For who is signed in and has not the role. */
const FORBIDDEN = `<!doctype html><html lang="en-GB"><head><title>Not yours to open · Axiometer</title><meta name="viewport" content="width=device-width"></head><body style="font:18px/1.5 sans-serif;max-width:32em;margin:12vh auto;padding:0 1em"><main><h1>Not yours to open</h1><p>Your role does not open this. Ask the owner if it should.</p><p><a href="/">To where you begin</a></p></main></body></html>`;

const log = pino({ level: process.env.AXIOMETER_LOG ?? 'info', base: null });
let opened: { world: World; config: Config; stop: () => void } | undefined;
/** A restore is putting other books in place: whoever comes meanwhile waits. */
let changing: Promise<void> | undefined;

/** Books that are lost, held by another server, or of another version: said on the console, and nothing is begun. */
function openOrEnd(config: Config, press?: World['press']): World {
	try {
		holdFolder(config.dataFolder);
		return openWorld(config, press && { press });
	} catch (error) {
		if (!(
			error instanceof LostBooksError ||
			error instanceof HeldError ||
			error instanceof MigrationError ||
			error instanceof DamagedError ||
			error instanceof LockedError
		))
			throw error;
		console.error(error.message);
		process.exit(1);
	}
}

function opening(press?: World['press']): { world: World; config: Config } {
	if (!opened) {
		const config = readConfig(process.env);
		const world = openOrEnd(config, press);
		if (!hasOwner(world))
			console.log(
				`\nThese books belong to nobody yet. Set them up at ${config.origin}/welcome?code=${setupCode(config.setupCode)}\nThe code holds until they are, or Axiometer is started again.\n`
			);
		if (log.level !== 'silent')
			for (const line of unsafe(world, config)) console.warn(`Unsafe: ${line}`);
		world.press.warm();
		const stop = startClockwork(world, (error) => log.error(error, 'clockwork'));
		opened = { world, config, stop };
	}
	return opened;
}

/** Closes the data file, has `work` put another in its place, and goes on with that. */
function withOthers(work: () => Promise<unknown>): Promise<void> {
	const { world, stop } = opened!;
	const turn = (async () => {
		stop();
		world.db.$client.close();
		opened = undefined;
		try {
			await work();
		} finally {
			opening(world.press);
		}
	})();
	changing = turn.catch(() => undefined).finally(() => (changing = undefined));
	return turn;
}

if (!building) {
	opening();
	// Whatever nobody waited for: a request must never end the server.
	process.on('unhandledRejection', (error) => log.error(error, 'unhandled'));
}

export const handle: Handle = async ({ event, resolve }) => {
	await changing;
	const { world, config } = opening();
	event.locals.reopen = withOthers;
	event.locals.world = world;
	event.locals.config = config;
	const person = whoIsSignedIn(world, sessionOf(event.cookies, config));
	event.locals.person = person;
	event.locals.signedIn = person !== null;
	const { pathname } = event.url;
	const rule = ruleOf(event.route.id);
	const refused =
		refusedBody(event.request, rule, event.locals.signedIn) ??
		tooFast(rule, event.request.method, pathname, Date.now());
	if (refused) return refused;

	const begins = /^\/welcome(\/restore)?$/.test(pathname);
	const open = rule && rule.who !== 'person' && !begins && pathname !== '/sign-in';
	if (!open) {
		const fresh = !hasOwner(world) || !isSetUp(world);
		if (fresh && !begins) redirect(303, '/welcome');
		if (!fresh && begins) redirect(303, '/');
		if (!fresh && !event.locals.signedIn && pathname !== '/sign-in') {
			if (/\/api(\/|$)/.test(pathname)) return new Response('Sign in first.', { status: 401 });
			redirect(303, `/sign-in?to=${encodeURIComponent(pathname + event.url.search)}`);
		}
	}
	// Somebody has forgotten its row: it is nobody's.
	if (event.route.id !== null && !rule) return new Response('Not here.', { status: 403 });
	if (rule?.who === 'person' && person) {
		const { method } = event.request;
		const right = method === 'GET' || method === 'HEAD' ? rule.looks : rule.acts;
		if (right !== null && !mayDo(person.role, right)) {
			// Whoever comes in by the front door is shown to their own place.
			if (pathname === '/') redirect(303, startOf(person.role));
			return new Response(FORBIDDEN, {
				status: 403,
				headers: { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' }
			});
		}
	}
	if (rule?.who === 'link' && event.params.token && !/\/(join|k)\//.test(event.route.id!)) {
		const token = tokenBehind(world.db, event.params.token);
		// A renewed link is as good as one that never was.
		event.params.token = token ?? 'renewed';
	}
	const look = lookOf(event.cookies);
	// What a stranger asks for the house does, whoever may be signed in beside it.
	const response = await asActor(rule?.who === 'person' ? person : null, () =>
		resolve(event, {
			// The letters come with the first look of a page: it is laid out once, not again when they arrive.
			preload: ({ type, path }) => type !== 'font' || path.includes('-latin-wght-normal'),
			transformPageChunk: ({ html }) => html.replace('data-mode="device"', `data-mode="${look}"`)
		})
	);
	response.headers.set('X-Content-Type-Options', 'nosniff');
	// Unguessable links must not travel to other hosts. (`no-referrer` would also blank the Origin of our own forms.)
	response.headers.set('Referrer-Policy', 'same-origin');
	if (config.origin.startsWith('https:'))
		response.headers.set('Strict-Transport-Security', 'max-age=31536000; includeSubDomains');
	// Forms go to this app, and from there to where money is paid; nothing that is slipped in can post elsewhere.
	const policy = response.headers.get('Content-Security-Policy');
	if (policy)
		response.headers.set(
			'Content-Security-Policy',
			`${policy}; form-action 'self' ${config.payPages.join(' ')}`
		);
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
	log.error({ err: error, path: pathForLog(event) }, 'unexpected');
	const trouble = troubleOf(error);
	if (trouble) return { message: trouble };
	return { message: 'Something went wrong here. What was saved before is safe. Try again.' };
};
