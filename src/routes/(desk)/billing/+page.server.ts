import {
	countByState,
	LIST_AGES,
	LIST_STATES,
	listDocuments,
	type ListQuery
} from '$lib/server/services/desk/documentList';
import { readCursor } from '$lib/core/paging';
import { discardDraft } from '$lib/server/services/invoices/drafts';
import { act, readForm } from '$lib/server/answers';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const given = url.searchParams;
	const customer = given.get('customer') ?? '';
	const query: ListQuery = {
		state: LIST_STATES.find((state) => state === given.get('state')) ?? 'all',
		age: LIST_AGES.find((age) => age === given.get('age')) ?? 'any',
		search: (given.get('q') ?? '').slice(0, 200),
		customerId: /^\d{1,12}$/.test(customer) ? Number(customer) : null,
		cursor: readCursor(given)
	};
	return { query, ...listDocuments(locals.world, query), counts: countByState(locals.world) };
};

export const actions: Actions = {
	restore: async ({ request, locals }) => {
		const id = Number((await readForm(request, locals.world.clock.today())).get('id'));
		return act(() => discardDraft(locals.world, id, false));
	}
};
