import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, rowId } from '$lib/server/answers';
import { MANY_ACTIONS } from '$lib/core/lists/actions';
import { keepView, removeView } from '$lib/server/services/business/views';
import { countByState } from '$lib/server/services/desk/documentList';
import { INVOICE_LIST } from '$lib/server/services/desk/lists/invoices';
import { rowsOfList } from '$lib/server/services/desk/lists/rows';
import { chooseRows } from '$lib/server/services/many/runs';
import { addedFilter, listPage } from '$lib/server/services/desk/lists/page';
import { discardDraft } from '$lib/server/services/invoices/drafts';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const { world } = locals;
	const adding = addedFilter(INVOICE_LIST, url, world.clock.today());
	if (adding && 'address' in adding) redirect(303, adding.address);
	const counts = countByState(world);
	return { adding, counts, ...listPage(world, INVOICE_LIST, url, () => counts.all) };
};

/** Rows by their numbers, or all that the address shows; and what is to be done with them. */
const chosen = z.object({
	key: box,
	address: box,
	all: box.transform((value) => value === '1'),
	go: z.enum(['', 'zip', ...MANY_ACTIONS]).catch(''),
	ids: box.transform((value) => (value.match(/\d{1,15}/g) ?? []).map(Number))
});

export const actions: Actions = {
	keepView: (event) =>
		act(event, z.object({ name: box, address: box }), ({ name, address }, world) => {
			keepView(world, 'invoices', name, address);
		}),
	removeView: (event) =>
		act(event, z.object({ id: rowId }), ({ id }, world) => {
			removeView(world, 'invoices', id);
		}),
	choose: (event) =>
		act(event, chosen, ({ key, ids, all, address, go }, world) => {
			const run = chooseRows(
				world,
				key,
				'invoices',
				all ? { view: address, rows: rowsOfList('invoices') } : { ids }
			);
			redirect(303, go === 'zip' ? `/many/${run}/zip` : `/many/${run}?do=${go}`);
		}),
	restore: (event) =>
		act(event, z.object({ id: rowId }), ({ id }, world) => {
			discardDraft(world, id, false);
		})
};
