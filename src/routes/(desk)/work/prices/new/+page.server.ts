import { categories } from '$lib/server/services/prices/prices';
import { blankSheet } from '$lib/core/sheet/blank';
import { sheetContext } from '$lib/server/services/invoices/context';
import { isRegistered } from '$lib/server/services/business/settings';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	categories: categories(locals.world.db),
	registered: isRegistered(locals.world),
	parties: sheetContext(locals.world.db, blankSheet(), locals.world.clock.today())
});
