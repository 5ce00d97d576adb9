import { z } from 'zod';
import { act, idOf, orNotFound, rowId } from '$lib/server/answers';
import { deliverOrLeave } from '$lib/server/clockwork/delivery';
import { sendAgain } from '$lib/server/services/messages/outbox';
import { statementRun } from '$lib/server/services/owed/statementRuns';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => statementRun(locals.world, idOf(params.run)));

export const actions: Actions = {
	again: (event) =>
		act(event, z.object({ mail: rowId }), async ({ mail }, world) => {
			sendAgain(world, mail);
			await deliverOrLeave(world);
		})
};
