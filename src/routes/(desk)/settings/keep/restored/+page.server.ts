import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, orNotFound } from '$lib/server/answers';
import { afterRestore, askSince, goOn } from '$lib/server/services/keep/goingOn';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => orNotFound(() => afterRestore(locals.world));

export const actions: Actions = {
	ask: (event) =>
		act(event, z.object({}), async (_values, world) => ({ heard: await askSince(world) })),
	go: (event) =>
		act(
			event,
			z.object({ invoice: box, creditNote: box, waiting: box }),
			({ invoice, creditNote, waiting }, world) => {
				const number = (typed: string) => (/^\d{1,8}$/.test(typed.trim()) ? Number(typed) : NaN);
				goOn(world, {
					next: { invoice: number(invoice), creditNote: number(creditNote) },
					waiting: waiting === 'send' ? 'send' : 'gone'
				});
				redirect(303, '/');
			}
		)
};
