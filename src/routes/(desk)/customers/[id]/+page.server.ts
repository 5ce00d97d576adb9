import { redirect } from '@sveltejs/kit';
import { act, idOf, orNotFound, readForm } from '$lib/server/answers';
import { customerAccount, daysToPay } from '$lib/server/services/owed/customerAccount';
import { mergeCustomers } from '$lib/server/services/customers/merge';
import { listJobs } from '$lib/server/services/jobs/list';
import { cardOf, revokeCard } from '$lib/server/services/repeats/keptCards';
import {
	archiveCustomer,
	customerDetail,
	removeCustomer
} from '$lib/server/services/customers/customers';
import { listDocuments } from '$lib/server/services/desk/documentList';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
	const id = idOf(params.id);
	return {
		customer: orNotFound(() => customerDetail(locals.world, id)),
		account: customerAccount(locals.world, id).slice(-200).reverse(),
		pays: daysToPay(locals.world, id),
		jobs: listJobs(locals.world, { customerId: id }).rows.slice(0, 12),
		card: cardOf(locals.world.db, id)?.lastDigits ?? '',
		...listDocuments(locals.world, {
			state: 'all',
			age: 'any',
			search: '',
			customerId: id,
			cursor: null
		})
	};
};

export const actions: Actions = {
	archive: async ({ request, locals, params }) => {
		const archived =
			(await readForm(request, locals.world.clock.today())).get('archived') === 'yes';
		return act(() => archiveCustomer(locals.world, idOf(params.id), archived));
	},
	merge: async ({ request, locals, params }) => {
		const into = Number((await readForm(request, locals.world.clock.today())).get('into'));
		const result = await act(() => {
			mergeCustomers(locals.world, idOf(params.id), into);
			return 'merged' as const;
		});
		if (result !== 'merged') return result;
		redirect(303, `/customers/${into}`);
	},
	forgetCard: ({ locals, params }) =>
		act(async () => {
			await revokeCard(locals.world, idOf(params.id), 'you');
		}),
	remove: async ({ locals, params }) => {
		const result = await act(() => {
			removeCustomer(locals.world, idOf(params.id));
			return 'removed' as const;
		});
		if (result !== 'removed') return result;
		redirect(303, '/customers');
	}
};
