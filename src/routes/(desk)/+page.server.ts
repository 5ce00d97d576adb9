import { worthOf } from '$lib/core/moves';
import { firstSteps } from '$lib/server/services/desk/firstSteps';
import { visitsOn } from '$lib/server/services/jobs/visits';
import { moneyInByMonth } from '$lib/server/services/desk/moneyIn';
import { nextMoves } from '$lib/server/services/desk/moves';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world } }) => {
	const moves = nextMoves(world);
	return {
		moves,
		worth: worthOf(moves),
		months: moneyInByMonth(world),
		visits: visitsOn(world, world.clock.today()),
		steps: firstSteps(world)
	};
};
