import { listRepeats } from '$lib/server/services/repeats/page';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({ repeats: listRepeats(locals.world) });
