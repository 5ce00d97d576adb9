import { moneyInByMonth, nextMoves } from '$lib/server/services/desk/moves';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	moves: nextMoves(locals.world),
	months: moneyInByMonth(locals.world)
});
