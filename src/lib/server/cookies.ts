// The cookies: the session's, and how this device is to look.
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

const LOOK_COOKIE = 'axiometer_look';
export const LOOKS = ['device', 'light', 'dark'] as const;
export type Look = (typeof LOOKS)[number];

/** Light, dark, or as the device is set: kept on the device, because the van is darker than the kitchen. */
export const lookOf = (cookies: Pick<Cookies, 'get'>): Look =>
	LOOKS.find((look) => look === cookies.get(LOOK_COOKIE)) ?? 'device';

export function setLook(cookies: Cookies, config: Config, look: Look): void {
	cookies.set(LOOK_COOKIE, look, {
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		secure: config.origin.startsWith('https:'),
		maxAge: 400 * 24 * 60 * 60
	});
}
