import { z } from 'zod';
import { act, box, boxesOf, filled, idOf, orNotFound, rowId } from '$lib/server/answers';
import {
	repeatForm,
	saveRepeat,
	setRepeatState,
	skipOccurrence
} from '$lib/server/services/repeats/repeats';
import { repeatPage } from '$lib/server/services/repeats/page';
import { answerPile, runRepeats } from '$lib/server/services/repeats/making';
import { revokeCard } from '$lib/server/services/repeats/keptCards';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => repeatPage(locals.world, idOf(params.id)));

export const actions: Actions = {
	save: (event) =>
		act(event, boxesOf(repeatForm).extend({ version: rowId }), ({ version, ...values }, world) => {
			saveRepeat(world, idOf(event.params.id), version, filled(values));
		}),
	state: (event) =>
		act(
			event,
			z.object({ to: z.enum(['', 'active', 'paused', 'ended']).catch('') }),
			({ to }, world) => {
				if (to) setRepeatState(world, idOf(event.params.id), to);
			}
		),
	skip: (event) =>
		act(event, z.object({ nominal: box, skip: box }), ({ nominal, skip }, world) => {
			skipOccurrence(world, idOf(event.params.id), nominal, skip === 'yes');
		}),
	pile: (event) =>
		act(
			event,
			z.object({ answer: z.enum(['', 'all', 'latest', 'none']).catch('') }),
			async ({ answer }, world) => {
				if (answer) await answerPile(world, idOf(event.params.id), answer);
				await runRepeats(world);
			}
		),
	forgetCard: (event) =>
		act(event, z.object({}), async (_values, world) => {
			const { repeat } = await repeatPage(world, idOf(event.params.id));
			await revokeCard(world, repeat.customerId, 'you');
		})
};
