import {
	countByState,
	LIST_AGES,
	LIST_STATES,
	listDocuments,
	type ListQuery
} from '$lib/server/services/desk/documentList';
import { readCursor } from '$lib/core/paging';
import { discardDraft } from '$lib/server/services/invoices/drafts';
import { z } from 'zod';
import { act, rowId } from '$lib/server/answers';
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
	restore: (event) =>
		act(event, z.object({ id: rowId }), ({ id }, world) => {
			discardDraft(world, id, false);
		})
};
