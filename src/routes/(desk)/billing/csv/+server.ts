import { csvOfList } from '$lib/server/listFile';
import { INVOICE_LIST } from '$lib/server/services/desk/lists/invoices';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, url }) => csvOfList(locals.world, INVOICE_LIST, url);
