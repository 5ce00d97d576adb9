import { exportCards, exportCustomers } from '$lib/server/services/customers/file';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, url }) => {
	const cards = url.searchParams.get('as') === 'vcard';
	const parts = cards ? exportCards(locals.world) : exportCustomers(locals.world);
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
				'content-type': `${cards ? 'text/vcard' : 'text/csv'}; charset=utf-8`,
				'content-disposition': `attachment; filename="customers.${cards ? 'vcf' : 'csv'}"`
			}
		}
	);
};
