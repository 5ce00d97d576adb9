// The session's cookie.
import type { Cookies } from '@sveltejs/kit';
import type { Config } from './config';
import { SESSION_SECONDS } from './services/business/signIn';

export const SESSION_COOKIE = 'axiometer_session';

export function setSession(cookies: Cookies, config: Config, token: string): void {
	cookies.set(SESSION_COOKIE, token, {
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		// Browsers refuse secure cookies over plain http, except where the app runs on the same machine.
		secure: config.origin.startsWith('https:'),
		maxAge: SESSION_SECONDS
	});
}
