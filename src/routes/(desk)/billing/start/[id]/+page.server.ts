import { idOf, orNotFound } from '$lib/server/answers';
import { sheetContext } from '$lib/server/services/invoices/context';
import { loadStartingPoint } from '$lib/server/services/invoices/startingPoints';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params }) => {
	const point = orNotFound(() => loadStartingPoint(world.db, idOf(params.id)));
	return { point, parties: sheetContext(world.db, point.sheet, world.clock.today()) };
};
