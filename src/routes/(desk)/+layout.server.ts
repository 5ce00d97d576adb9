import type { LayoutServerLoad } from './$types';

export const load: LayoutServerLoad = ({ locals }) => ({
	demo: locals.config.demo,
	today: locals.world.clock.today()
});
