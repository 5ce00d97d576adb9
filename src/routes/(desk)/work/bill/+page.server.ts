import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound, readJson } from '$lib/server/answers';
import { continueRuns, listRuns, startBillRun } from '$lib/server/services/billing/billRun';
import { customerNames } from '$lib/server/services/customers/customers';
import { chosenRows } from '$lib/server/services/many/page';
import { toBill } from '$lib/server/services/billing/toBill';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const jobs = toBill(locals.world).map(
		({ billables, pricesIncludeVat: _vat, retention: _r, retentionDue: _d, ...job }) => ({
			...job,
			items: billables.length
		})
	);
	const run = url.searchParams.get('chosen');
	return {
		/** Jobs that were chosen in the list of jobs; null: none were. */
		chosen: run === null ? null : orNotFound(() => chosenRows(locals.world, idOf(run), 'jobs')),
		customer: url.searchParams.get('customer') ?? '',
		today: locals.world.clock.today(),
		jobs,
		payers: customerNames(
			locals.world,
			jobs.flatMap(({ billToId }) => billToId ?? [])
		),
		runs: listRuns(locals.world).slice(0, 5)
	};
};

const runForm = z.object({
	key: box,
	action: z.enum(['draft', 'issue', 'send']).catch('draft'),
	choice: box
});

export const actions: Actions = {
	start: (event) =>
		act(event, runForm, ({ key, action, choice }, world) => {
			const run = startBillRun(world, key, action, readJson(choice));
			// Goes on by itself; the page of the run shows how far it is. What fails here is taken up by the clockwork.
			continueRuns(world).catch(() => undefined);
			redirect(303, `/work/runs/${run}`);
		})
};
