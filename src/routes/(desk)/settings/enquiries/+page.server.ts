import { z } from 'zod';
import { encode } from 'uqr';
import { act, box, rowId, tick } from '$lib/server/answers';
import {
	addQuestion,
	pageSettings,
	questionsOf,
	removeQuestion,
	renewPage,
	savePage
} from '$lib/server/services/enquiries/page';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world } }) => {
	const page = pageSettings(world.db);
	const link = page.token ? `${world.origin}/e/${page.token}` : '';
	return {
		page: { on: page.on, intro: page.intro, next: page.next },
		link,
		/** As rows of dark and light: for a van, a card, a sign. */
		code: link ? encode(link, { border: 2 }).data : [],
		questions: questionsOf(world.db)
	};
};

export const actions: Actions = {
	page: (event) =>
		act(event, z.object({ on: tick, intro: box, next: box }), (form, world) =>
			savePage(world, form)
		),
	renew: (event) => act(event, z.object({}), (_form, world) => renewPage(world)),
	add: (event) =>
		act(
			event,
			z.object({ workKindId: rowId, question: box, kind: box, unit: box, options: box }),
			({ workKindId, ...form }, world) => {
				addQuestion(world, { ...form, workKindId: workKindId || null });
			}
		),
	remove: (event) =>
		act(event, z.object({ id: rowId }), ({ id }, world) => removeQuestion(world, id))
};
