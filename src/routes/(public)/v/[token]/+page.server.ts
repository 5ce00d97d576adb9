import { z } from 'zod';
import { act, box, orNotFound } from '$lib/server/answers';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import { answerVisit, toldPage } from '$lib/server/services/telling/told';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params }) =>
	orNotFound(() => toldPage(world, params.token));

export const actions: Actions = {
	answer: (event) =>
		act(event, z.object({ answer: box, words: box }), (form, world) => {
			answerVisit(world, event.params.token, form);
			deliverSoon(world);
		})
};
