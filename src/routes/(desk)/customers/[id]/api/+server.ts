import { answer, idOf, readBody } from '$lib/server/answers';
import { customerRecord, mailAddresses } from '$lib/server/services/customers/parts';
import { customerDetail, saveCustomer } from '$lib/server/services/customers/customers';
import { NotFoundError } from '$lib/core/refusals';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params }) =>
	answer(() => {
		const { world } = locals;
		const id = idOf(params.id);
		const record = customerRecord(world.db, id);
		if (!record) throw new NotFoundError('This customer');
		return {
			record,
			detail: customerDetail(world, id),
			mailTo: mailAddresses(world.db, id)[0] ?? ''
		};
	});

export const PUT: RequestHandler = ({ request, locals, params }) =>
	answer(async () => {
		const { world } = locals;
		const id = idOf(params.id);
		const { version, customer } = await readBody(request);
		const next = saveCustomer(world, id, Number(version), customer);
		return {
			version: next,
			record: customerRecord(world.db, id),
			mailTo: mailAddresses(world.db, id)[0] ?? ''
		};
	});
