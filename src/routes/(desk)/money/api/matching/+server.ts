import { json } from '@sveltejs/kit';
import { matchingProgress } from '$lib/server/services/money/bank/matching';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = () => json(matchingProgress());
