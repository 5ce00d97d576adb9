import { redirect } from '@sveltejs/kit';
import { act, boxesOf } from '$lib/server/answers';
import { setSession } from '$lib/server/cookies';
import { businessForm, isSetUp, saveBusiness } from '$lib/server/services/business/settings';
import { FieldError } from '$lib/core/refusals';
import {
	checkPassword,
	hasOwner,
	openSession,
	setPassword
} from '$lib/server/services/business/signIn';
import type { Actions } from './$types';

export const actions: Actions = {
	default: (event) =>
		act(event, boxesOf(businessForm), async (values, world, posted) => {
			if (hasOwner(world) && isSetUp(world)) redirect(303, '/sign-in');
			const password = String(posted.get('password') ?? '');
			// Both are looked at before anything is written, so that every message comes at once.
			const wrong = passwordProblem(password);
			try {
				saveBusiness(world, values, true);
			} catch (problem) {
				if (problem instanceof FieldError) throw new FieldError({ ...problem.fields, ...wrong });
				throw problem;
			}
			if (Object.keys(wrong).length) throw new FieldError(wrong);
			await setPassword(world, password);
			setSession(event.cookies, event.locals.config, openSession(world));
			redirect(303, '/');
		})
};

function passwordProblem(password: string): Record<string, string> {
	try {
		checkPassword(password);
		return {};
	} catch (problem) {
		if (problem instanceof FieldError) return problem.fields;
		throw problem;
	}
}
