import { readView } from '$lib/core/lists/address';
import { listCsv } from '$lib/server/services/desk/lists/engine';
import { INVOICE_LIST } from '$lib/server/services/desk/lists/invoices';
import { streamed } from '$lib/server/streamed';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, url }) => {
	const view = readView(INVOICE_LIST.spec, url.searchParams);
	return streamed(listCsv(locals.world, INVOICE_LIST, view), 'text/csv', 'invoices.csv');
};
