import { error, redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act } from '$lib/server/answers';
import { setSession } from '$lib/server/cookies';
import { deviceOf } from '$lib/server/guesser';
import { openSession } from '$lib/server/services/business/sessions';
import { invitedBy, join } from '$lib/server/services/people/people';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
	const person = invitedBy(locals.world, params.token);
	if (!person)
		error(404, 'This invitation opens nothing any more. Ask whoever sent it for another one.');
	return { name: person.name };
};

export const actions: Actions = {
	default: (event) =>
		act(event, z.object({}), async (_values, world, posted) => {
			const id = await join(world, event.params.token, String(posted.get('password') ?? ''));
			const session = openSession(world, deviceOf(event.request), id);
			setSession(event.cookies, event.locals.config, session);
			redirect(303, '/');
		})
};
