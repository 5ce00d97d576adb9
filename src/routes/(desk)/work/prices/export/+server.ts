import { exportPrices } from '$lib/server/services/prices/file';
import { streamed } from '$lib/server/streamed';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals }) =>
	streamed(exportPrices(locals.world), 'text/csv', 'price-list.csv');
