import { redirect } from '@sveltejs/kit';
import { act, readJson, readForm } from '$lib/server/answers';
import { continueRuns, listRuns, startBillRun } from '$lib/server/services/billing/billRun';
import { customerNames } from '$lib/server/services/customers/customers';
import { toBill } from '$lib/server/services/billing/toBill';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const jobs = toBill(locals.world).map(
		({ billables, pricesIncludeVat: _vat, retention: _r, retentionDue: _d, ...job }) => ({
			...job,
			items: billables.length
		})
	);
	return {
		customer: url.searchParams.get('customer') ?? '',
		jobs,
		payers: Object.fromEntries(customerNames(locals.world).map(({ id, name }) => [id, name])),
		runs: listRuns(locals.world).slice(0, 5)
	};
};

export const actions: Actions = {
	start: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const action = (['draft', 'issue', 'send'] as const).find((one) => one === form.get('action'));
		const result = await act(() =>
			startBillRun(
				locals.world,
				String(form.get('key') ?? ''),
				action ?? 'draft',
				readJson(form.get('choice'))
			)
		);
		if (typeof result !== 'number') return result;
		// Goes on by itself; the page of the run shows how far it is. What fails here is taken up by the clockwork.
		continueRuns(locals.world).catch(() => undefined);
		redirect(303, `/work/runs/${result}`);
	}
};
