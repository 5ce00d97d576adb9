import { chartsPage } from '$lib/server/services/desk/charts';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => chartsPage(locals.world);
