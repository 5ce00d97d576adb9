import { redirect } from '@sveltejs/kit';
import { act, orNotFound, typedAmount, readForm } from '$lib/server/answers';
import { newToken } from '$lib/server/services/business/keys';
import {
	noteStatementOpened,
	payStatement,
	statementPage
} from '$lib/server/services/owed/statementPage';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = ({ locals, params, url }) => {
	const shown = orNotFound(() => statementPage(locals.world, params.token));
	// The owner looking at it is not the payer.
	if (!locals.signedIn) noteStatementOpened(locals.world, params.token);
	return { ...shown, from: url.searchParams.get('from') ?? '' };
};

async function begin({ request, locals, params }: RequestEvent, way: 'card' | 'bank') {
	const form = await readForm(request, locals.world.clock.today());
	const typed = String(form.get('amount') ?? '').trim();
	const chosen = form.getAll('invoice').flatMap((one) => Number(one) || []);
	const result = await act(
		async () => {
			const key = `${way}:${String(form.get('key') ?? '') || newToken()}`;
			const amount = typedAmount(typed);
			return { url: await payStatement(locals.world, params.token, key, chosen, amount, way) };
		},
		{ amount: typed, chosen }
	);
	if (!('url' in result)) return result;
	redirect(303, result.url);
}

export const actions: Actions = {
	card: (event) => begin(event, 'card'),
	bank: (event) => begin(event, 'bank')
};
