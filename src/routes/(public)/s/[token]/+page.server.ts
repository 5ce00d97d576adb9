import { redirect } from '@sveltejs/kit';
import { act, orNotFound } from '$lib/server/answers';
import { parseMoney } from '$lib/core/money/decimal';
import { readTypedNumber } from '$lib/core/money/typed';
import { FieldError } from '$lib/server/services/errors';
import { newToken } from '$lib/server/services/keys';
import {
	noteStatementOpened,
	payStatement,
	statementPage
} from '$lib/server/services/statementPage';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params, url }) => {
	const shown = orNotFound(() => statementPage(locals.world, params.token));
	// The owner looking at it is not the payer.
	if (!locals.signedIn) noteStatementOpened(locals.world, params.token);
	return { ...shown, fromCard: url.searchParams.has('from') };
};

export const actions: Actions = {
	card: async ({ request, locals, params }) => {
		const form = await request.formData();
		const typed = String(form.get('amount') ?? '').trim();
		const chosen = form.getAll('invoice').flatMap((one) => Number(one) || []);
		const result = await act(
			async () => {
				let amount: number | undefined;
				if (typed !== '') {
					const read = readTypedNumber(typed, { decimals: 2 });
					if (!read.ok)
						throw new FieldError({ amount: 'Write the amount as a plain number, such as 250.00.' });
					amount = Number(parseMoney(read.text));
				}
				const key = String(form.get('key') ?? '') || newToken();
				return { url: await payStatement(locals.world, params.token, key, chosen, amount) };
			},
			{ amount: typed, chosen }
		);
		if (!('url' in result)) return result;
		redirect(303, result.url);
	}
};
