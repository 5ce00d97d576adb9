import { wayPage } from '$lib/server/services/desk/wayPage';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => wayPage(locals.world);
