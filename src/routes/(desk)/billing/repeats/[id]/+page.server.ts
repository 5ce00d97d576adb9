import { act, idOf, orNotFound, readForm } from '$lib/server/answers';
import { saveRepeat, setRepeatState, skipOccurrence } from '$lib/server/services/repeats/repeats';
import { repeatPage } from '$lib/server/services/repeats/page';
import { answerPile, runRepeats } from '$lib/server/services/repeats/making';
import { revokeCard } from '$lib/server/services/repeats/keptCards';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => repeatPage(locals.world, idOf(params.id)));

export const actions: Actions = {
	save: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = Object.fromEntries(
			[...form].flatMap(([name, value]) => (value === '' ? [] : [[name, String(value)]]))
		);
		return act(
			() => saveRepeat(locals.world, idOf(params.id), Number(form.get('version')), values),
			values
		);
	},
	state: async ({ request, locals, params }) => {
		const to = (await readForm(request, locals.world.clock.today())).get('to');
		const state = (['active', 'paused', 'ended'] as const).find((one) => one === to);
		if (state) return act(() => setRepeatState(locals.world, idOf(params.id), state));
	},
	skip: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() =>
			skipOccurrence(
				locals.world,
				idOf(params.id),
				String(form.get('nominal') ?? ''),
				form.get('skip') === 'yes'
			)
		);
	},
	pile: async ({ request, locals, params }) => {
		const given = (await readForm(request, locals.world.clock.today())).get('answer');
		const answer = (['all', 'latest', 'none'] as const).find((one) => one === given);
		return act(async () => {
			if (answer) answerPile(locals.world, idOf(params.id), answer);
			await runRepeats(locals.world);
		});
	},
	forgetCard: ({ locals, params }) =>
		act(async () => {
			const { repeat } = repeatPage(locals.world, idOf(params.id));
			await revokeCard(locals.world, repeat.customerId, 'you');
		})
};
