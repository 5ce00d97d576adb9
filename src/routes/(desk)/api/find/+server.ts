import { json } from '@sveltejs/kit';
import { find } from '$lib/server/services/desk/find';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ url, locals }) =>
	json(find(locals.world, url.searchParams.get('q') ?? ''));
