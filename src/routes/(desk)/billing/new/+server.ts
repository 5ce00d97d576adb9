import { readForm } from '$lib/server/answers';
import { redirect } from '@sveltejs/kit';
import { beginInvoice, beginSelfBilled, copyAsDraft } from '$lib/server/services/invoices/drafts';
import { newToken } from '$lib/server/services/business/keys';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, locals }) => {
	const form = await readForm(request, locals.world.clock.today());
	const number = (name: string) =>
		/^\d{1,12}$/.test(String(form.get(name) ?? '')) ? Number(form.get(name)) : null;
	const key = String(form.get('key') || newToken()).slice(0, 100);
	const copied = number('copyOf');
	const id = form.has('selfBilled')
		? beginSelfBilled(locals.world, key)
		: copied === null
			? beginInvoice(locals.world, key, number('customer'))
			: copyAsDraft(locals.world, copied, key);
	redirect(303, `/billing/${id}`);
};
