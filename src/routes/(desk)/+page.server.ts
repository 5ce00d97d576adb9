import { moneyInByMonth } from '$lib/server/services/desk/moneyIn';
import { nextMoves } from '$lib/server/services/desk/moves';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	moves: nextMoves(locals.world),
	months: moneyInByMonth(locals.world)
});
