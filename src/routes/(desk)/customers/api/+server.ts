import { json } from '@sveltejs/kit';
import { answer, readBody } from '$lib/server/answers';
import { customerRecord } from '$lib/server/services/customers/parts';
import { addCustomer, searchCustomers } from '$lib/server/services/customers/customers';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ url, locals }) =>
	json(searchCustomers(locals.world, url.searchParams.get('q') ?? '', 8));

export const POST: RequestHandler = ({ request, locals }) =>
	answer(async () => {
		const id = addCustomer(locals.world, await readBody(request));
		return customerRecord(locals.world.db, id);
	});
