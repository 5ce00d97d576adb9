import { redirect } from '@sveltejs/kit';
import { SESSION_COOKIE } from '$lib/server/cookies';
import { signOut } from '$lib/server/services/business/signIn';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ locals, cookies }) => {
	signOut(locals.world, cookies.get(SESSION_COOKIE));
	cookies.delete(SESSION_COOKIE, { path: '/' });
	redirect(303, '/sign-in');
};
