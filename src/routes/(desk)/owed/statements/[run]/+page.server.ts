import { act, idOf, orNotFound, readForm } from '$lib/server/answers';
import { deliverDue } from '$lib/server/clockwork/delivery';
import { sendAgain } from '$lib/server/services/messages/outbox';
import { statementRun } from '$lib/server/services/owed/statementRuns';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => statementRun(locals.world, idOf(params.run)));

export const actions: Actions = {
	again: async ({ request, locals }) => {
		const mail = Number((await readForm(request, locals.world.clock.today())).get('mail'));
		const result = await act(() => {
			sendAgain(locals.world, mail);
			return { done: 'again' as const };
		});
		if ('done' in result) await deliverDue(locals.world);
		return result;
	}
};
