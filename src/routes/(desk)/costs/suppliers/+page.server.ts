import { z } from 'zod';
import { act, box, rowId, tick } from '$lib/server/answers';
import { archiveSupplier, listSuppliers, saveSupplier } from '$lib/server/services/costs/suppliers';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({ suppliers: listSuppliers(locals.world.db) });

const one = z.object({ id: rowId });

export const actions: Actions = {
	save: (event) =>
		act(
			event,
			z.object({ id: rowId, name: box, vatNumber: box, subcontractor: tick, category: box }),
			({ id, ...values }, world) => saveSupplier(world, id, values)
		),
	archive: (event) => act(event, one, ({ id }, world) => archiveSupplier(world, id, true)),
	restore: (event) => act(event, one, ({ id }, world) => archiveSupplier(world, id, false))
};
