import { redirect } from '@sveltejs/kit';
import { act, orNotFound } from '$lib/server/answers';
import { parseMoney } from '$lib/core/money/decimal';
import { readTypedNumber } from '$lib/core/money/typed';
import { openCheckout } from '$lib/server/services/cards';
import { FieldError } from '$lib/server/services/errors';
import { newToken } from '$lib/server/services/keys';
import { keptCardShown, revokeByCustomer } from '$lib/server/services/savedCards';
import { noteOpened, payPage } from '$lib/server/services/payPage';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params, url }) => {
	const shown = orNotFound(() => payPage(locals.world, params.token));
	// The owner looking at it is not the customer.
	if (!locals.signedIn) noteOpened(locals.world, params.token, 'opened');
	return {
		...shown,
		keptCard: keptCardShown(locals.world, params.token),
		fromCard: url.searchParams.has('from')
	};
};

export const actions: Actions = {
	card: async ({ request, locals, params }) => {
		const form = await request.formData();
		const typed = String(form.get('amount') ?? '').trim();
		const result = await act(
			async () => {
				let amount: number | undefined;
				if (typed !== '') {
					const read = readTypedNumber(typed, { decimals: 2 });
					if (!read.ok)
						throw new FieldError({ amount: 'Write the amount as a plain number, such as 250.00.' });
					amount = Number(parseMoney(read.text));
				}
				// A page without scripts sends no key: each press then is one of its own.
				const key = String(form.get('key') ?? '') || newToken();
				const url = await openCheckout(
					locals.world,
					params.token,
					key,
					amount,
					form.has('keepCard')
				);
				return { url };
			},
			{ amount: typed }
		);
		if (!('url' in result)) return result;
		redirect(303, result.url);
	},
	forgetCard: ({ locals, params }) =>
		act(async () => {
			await revokeByCustomer(locals.world, params.token);
		})
};
