import { json } from '@sveltejs/kit';
import { nextMoves } from '$lib/server/services/desk/moves';
import type { RequestHandler } from './$types';

/** How much waits for somebody, for the title of the tab. */
export const GET: RequestHandler = ({ locals }) =>
	json({ waiting: nextMoves(locals.world).length });
