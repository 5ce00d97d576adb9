import { ownVisits } from '$lib/server/services/jobs/site';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world, person } }) => ({
	today: world.clock.today(),
	name: person?.name ?? '',
	visits: ownVisits(world)
});
