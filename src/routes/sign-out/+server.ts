import { redirect } from '@sveltejs/kit';
import { endSessionCookie, sessionOf } from '$lib/server/cookies';
import { signOut } from '$lib/server/services/business/sessions';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ locals, cookies }) => {
	signOut(locals.world, sessionOf(cookies, locals.config));
	endSessionCookie(cookies, locals.config);
	redirect(303, '/sign-in');
};
