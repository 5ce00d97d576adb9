import { restingSince } from '$lib/server/services/business/resting';
import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = ({ locals }) => ({
	demo: locals.config.demo,
	today: locals.world.clock.today(),
	resting: restingSince(locals.world.db) !== undefined
});
