import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, rowId } from '$lib/server/answers';
import { listForms } from '$lib/server/listForms';
import { countByState } from '$lib/server/services/desk/documentList';
import { INVOICE_LIST } from '$lib/server/services/desk/lists/invoices';
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

export const actions: Actions = {
	...listForms(() => 'invoices'),
	restore: (event) =>
		act(event, z.object({ id: rowId }), ({ id }, world) => {
			discardDraft(world, id, false);
		})
};
