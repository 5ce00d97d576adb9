import { redirect } from '@sveltejs/kit';
import { act, readForm } from '$lib/server/answers';
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
	password: async ({ request, locals, cookies, url, getClientAddress }) => {
		const form = await readForm(request, locals.world.clock.today());
		const result = await act(async () => {
			const token = await signIn(
				locals.world,
				String(form.get('password') ?? ''),
				getClientAddress()
			);
			setSession(cookies, locals.config, token);
			return 'in' as const;
		});
		if (result !== 'in') return result;
		redirect(303, safeTarget(url.searchParams.get('to')));
	},
	demo: ({ locals, cookies, url }) => {
		if (!locals.config.demo) redirect(303, '/sign-in');
		setSession(cookies, locals.config, openSession(locals.world));
		redirect(303, safeTarget(url.searchParams.get('to')));
	}
};
