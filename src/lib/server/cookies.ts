// The cookies: the session's, and how this device is to look.
import type { Cookies } from '@sveltejs/kit';
import type { Config } from './config';
import { SESSION_SECONDS } from './services/business/sessions';

/** Over https the name itself says that no other host can have set it. */
const named = (config: Pick<Config, 'origin'>, name: string): string =>
	config.origin.startsWith('https:') ? `__Host-${name}` : name;

const options = (config: Config, maxAge: number) =>
	({
		path: '/',
		httpOnly: true,
		sameSite: 'lax',
		// Browsers refuse secure cookies over plain http, except where the app runs on the same machine.
		secure: config.origin.startsWith('https:'),
		maxAge
	}) as const;

export const sessionOf = (cookies: Pick<Cookies, 'get'>, config: Config): string | undefined =>
	cookies.get(named(config, 'axiometer_session'));

export const setSession = (cookies: Cookies, config: Config, token: string): void =>
	cookies.set(named(config, 'axiometer_session'), token, options(config, SESSION_SECONDS));

export const endSessionCookie = (cookies: Cookies, config: Config): void =>
	cookies.delete(named(config, 'axiometer_session'), {
		path: '/',
		secure: options(config, 0).secure
	});

/** What a browser is known by that the owner has signed in with. */
export const browserOf = (cookies: Pick<Cookies, 'get'>, config: Config): string | undefined =>
	cookies.get(named(config, 'axiometer_browser'));

export const setBrowser = (cookies: Cookies, config: Config, token: string): void =>
	cookies.set(named(config, 'axiometer_browser'), token, options(config, 400 * 24 * 60 * 60));

const LOOK_COOKIE = 'axiometer_look';
export const LOOKS = ['device', 'light', 'dark'] as const;
export type Look = (typeof LOOKS)[number];

/** Light, dark, or as the device is set: kept on the device, because the van is darker than the kitchen. */
export const lookOf = (cookies: Pick<Cookies, 'get'>): Look =>
	LOOKS.find((look) => look === cookies.get(LOOK_COOKIE)) ?? 'device';

export function setLook(cookies: Cookies, config: Config, look: Look): void {
	cookies.set(LOOK_COOKIE, look, options(config, 400 * 24 * 60 * 60));
}
