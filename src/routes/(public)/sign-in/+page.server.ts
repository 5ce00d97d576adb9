import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, placeHere } from '$lib/server/answers';
import { deviceOf, guesserOf } from '$lib/server/guesser';
import { setBrowser, setSession } from '$lib/server/cookies';
import { signIn, signInPage } from '$lib/server/services/business/signIn';
import { openSession } from '$lib/server/services/business/sessions';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const to = placeHere(url.searchParams.get('to'));
	if (locals.signedIn) redirect(303, to);
	return { to, demo: locals.config.demo, ...signInPage(locals.world.db) };
};

export const actions: Actions = {
	password: (event) =>
		act(event, z.object({ email: box, code: box }), async ({ email, code }, world, posted) => {
			const password = String(posted.get('password') ?? '');
			const { config } = event.locals;
			const { session, browser } = await signIn(world, { password, email, code }, guesserOf(event));
			setSession(event.cookies, config, session);
			setBrowser(event.cookies, config, browser);
			redirect(303, placeHere(event.url.searchParams.get('to')));
		}),
	demo: ({ locals, cookies, url, request }) => {
		if (!locals.config.demo) redirect(303, '/sign-in');
		setSession(cookies, locals.config, openSession(locals.world, deviceOf(request)));
		redirect(303, placeHere(url.searchParams.get('to')));
	}
};
