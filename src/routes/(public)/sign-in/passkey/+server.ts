import { answer, readBody } from '$lib/server/answers';
import { setBrowser, setSession } from '$lib/server/cookies';
import { guesserOf } from '$lib/server/guesser';
import { askToSignIn, signInByPasskey } from '$lib/server/services/business/passkeys';
import type { RequestHandler } from './$types';

/** What a device is asked; then what it answered. */
export const POST: RequestHandler = (event) =>
	answer(async () => {
		const { world, config } = event.locals;
		const body = await readBody(event.request);
		if (body.answer === undefined) return askToSignIn(world);
		const { session, browser } = await signInByPasskey(world, body.answer, guesserOf(event));
		setSession(event.cookies, config, session);
		setBrowser(event.cookies, config, browser);
		return {};
	});
