import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { FieldError } from '$lib/core/refusals';
import { answer } from '$lib/server/answers';
import { beginQuick, quickOffers } from '$lib/server/services/invoices/quick';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ url, locals }) =>
	json(quickOffers(locals.world, (url.searchParams.get('q') ?? '').slice(0, 300)));

const line = z.object({
	key: z.string().min(8).max(100),
	customerId: z.number().int(),
	typed: z.string().max(300)
});

export const POST: RequestHandler = ({ request, locals }) =>
	answer(async () => {
		const parsed = line.safeParse(await request.json().catch(() => null));
		if (!parsed.success) throw new FieldError({ typed: 'This could not be read.' });
		return { href: beginQuick(locals.world, parsed.data) };
	});
