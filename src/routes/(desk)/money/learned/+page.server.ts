import { z } from 'zod';
import { act, box } from '$lib/server/answers';
import { forgetName, learnedNames } from '$lib/server/services/money/bank/learned';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const typed = (url.searchParams.get('q') ?? '').slice(0, 100);
	return { typed, ...learnedNames(locals.world, typed) };
};

export const actions: Actions = {
	forget: (event) =>
		act(event, z.object({ name: box }), ({ name }, world) => {
			forgetName(world, name);
		})
};
