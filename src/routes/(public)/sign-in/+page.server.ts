import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act } from '$lib/server/answers';
import { setSession } from '$lib/server/cookies';
import { openSession, signIn } from '$lib/server/services/business/signIn';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	if (locals.signedIn) redirect(303, safeTarget(url.searchParams.get('to')));
	return { demo: locals.config.demo };
};

/** Only a path of this app: never another host. */
function safeTarget(to: string | null): string {
	return to && /^\/(?![/\\])/.test(to) ? to : '/';
}

export const actions: Actions = {
	password: (event) =>
		act(event, z.object({}), async (_values, world, posted) => {
			const password = String(posted.get('password') ?? '');
			const token = await signIn(world, password, event.getClientAddress());
			setSession(event.cookies, event.locals.config, token);
			redirect(303, safeTarget(event.url.searchParams.get('to')));
		}),
	demo: ({ locals, cookies, url }) => {
		if (!locals.config.demo) redirect(303, '/sign-in');
		setSession(cookies, locals.config, openSession(locals.world));
		redirect(303, safeTarget(url.searchParams.get('to')));
	}
};
