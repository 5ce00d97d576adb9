import { exportCards, exportCustomers } from '$lib/server/services/customers/file';
import { streamed } from '$lib/server/streamed';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, url }) =>
	url.searchParams.get('as') === 'vcard'
		? streamed(exportCards(locals.world), 'text/vcard', 'customers.vcf')
		: streamed(exportCustomers(locals.world), 'text/csv', 'customers.csv');
