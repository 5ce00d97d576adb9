import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box } from '$lib/server/answers';
import { FieldError } from '$lib/core/refusals';
import { LOOKS, lookOf, sessionOf, setLook } from '$lib/server/cookies';
import { guesserOf } from '$lib/server/guesser';
import { proposeFactor, turnOffFactor, turnOnFactor } from '$lib/server/services/business/factor';
import { ownPasskeys, removePasskey } from '$lib/server/services/business/passkeys';
import { confirmPassword, ownFactor } from '$lib/server/services/business/signIn';
import { endSession, openSessions } from '$lib/server/services/business/sessions';
import { loadBusiness } from '$lib/server/services/business/settings';
import { changeWatchedPassword, tell } from '$lib/server/services/messages/watched';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world, config, person }, cookies }) => {
	const factor = ownFactor(world.db);
	return {
		person,
		look: lookOf(cookies),
		factor,
		passkeys: ownPasskeys(world),
		proposed: factor ? null : proposeFactor(person?.name ?? ''),
		sessions: openSessions(world, sessionOf(cookies, config))
	};
};

export const actions: Actions = {
	look: (event) =>
		act(event, z.object({ look: box }), ({ look }) => {
			const chosen = LOOKS.find((one) => one === look);
			if (!chosen) throw new FieldError({ look: 'Choose one of the three.' });
			setLook(event.cookies, event.locals.config, chosen);
			return { look: chosen };
		}),
	password: (event) =>
		act(event, z.object({}), async (_values, world, posted) => {
			const typed = (name: string) => String(posted.get(name) ?? '');
			await changeWatchedPassword(world, typed('current'), typed('password'), guesserOf(event));
			redirect(303, '/sign-in');
		}),
	endSession: (event) =>
		act(event, z.object({ name: box }), ({ name }, world) => {
			endSession(
				world,
				name ? { name } : { others: sessionOf(event.cookies, event.locals.config) ?? '' }
			);
		}),
	removePasskey: (event) =>
		act(event, z.object({ key: box }), ({ key }, world) => {
			removePasskey(world, key);
			tell(
				world,
				'factor',
				'a passkey was removed',
				loadBusiness(world.db).email,
				guesserOf(event)
			);
		}),
	factorOn: (event) =>
		act(event, z.object({ secret: box, code: box }), async ({ secret, code }, world, posted) => {
			await confirmPassword(world, String(posted.get('current') ?? ''), guesserOf(event));
			const codes = turnOnFactor(world, event.locals.person!.id, secret, code);
			tell(world, 'factor', 'turned on', loadBusiness(world.db).email, guesserOf(event));
			return { codes };
		}),
	factorOff: (event) =>
		act(event, z.object({}), async (_values, world, posted) => {
			await confirmPassword(world, String(posted.get('current') ?? ''), guesserOf(event));
			turnOffFactor(world, event.locals.person!.id);
			tell(world, 'factor', 'turned off', loadBusiness(world.db).email, guesserOf(event));
		})
};
