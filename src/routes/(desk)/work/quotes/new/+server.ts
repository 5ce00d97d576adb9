import { redirect } from '@sveltejs/kit';
import { readForm } from '$lib/server/answers';
import { newToken } from '$lib/server/services/business/keys';
import { beginQuote, copyQuote } from '$lib/server/services/quotes/quotes';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, locals: { world } }) => {
	const form = await readForm(request, world.clock.today());
	const number = (name: string) =>
		/^\d{1,12}$/.test(String(form.get(name) ?? '')) ? Number(form.get(name)) : null;
	const key = String(form.get('key') || newToken()).slice(0, 100);
	const copied = number('copyOf');
	const id =
		copied === null
			? beginQuote(world, key, { customerId: number('customer'), forJobId: number('job') })
			: copyQuote(world, copied, key);
	redirect(303, `/work/quotes/${id}?write`);
};
