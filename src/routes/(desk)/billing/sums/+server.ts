import { json } from '@sveltejs/kit';
import { readView } from '$lib/core/lists/address';
import { sumList } from '$lib/server/services/desk/lists/engine';
import { INVOICE_LIST } from '$lib/server/services/desk/lists/invoices';
import type { RequestHandler } from './$types';

/** What all that matches comes to, asked for once the page is there. */
export const GET: RequestHandler = ({ locals, url }) =>
	json(sumList(locals.world, INVOICE_LIST, readView(INVOICE_LIST.spec, url.searchParams)));
