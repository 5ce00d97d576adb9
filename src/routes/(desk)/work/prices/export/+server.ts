import { exportPrices } from '$lib/server/services/prices/file';
import type { RequestHandler } from './$types';

/** Streamed, so that a long list needs no memory. */
export const GET: RequestHandler = ({ locals }) => {
	const parts = exportPrices(locals.world);
	const encoder = new TextEncoder();
	return new Response(
		new ReadableStream({
			pull(controller) {
				const { value, done } = parts.next();
				if (done) controller.close();
				else controller.enqueue(encoder.encode(value));
			}
		}),
		{
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': 'attachment; filename="price-list.csv"'
			}
		}
	);
};
