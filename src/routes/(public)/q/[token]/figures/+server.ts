import { z } from 'zod';
import { answer, readBody } from '$lib/server/answers';
import { FieldError } from '$lib/core/refusals';
import { quoteFigures } from '$lib/server/services/quotes/page';
import type { RequestHandler } from './$types';

const picked = z.object({
	options: z.record(z.string().max(200), z.string().max(200)),
	extras: z.record(z.string().max(60), z.string().max(30))
});

/** What a contractor pays after its deduction: only here is it known what the materials cost. */
export const POST: RequestHandler = ({ request, locals, params }) =>
	answer(async () => {
		const read = picked.safeParse(await readBody(request));
		if (!read.success) throw new FieldError({ picked: 'This could not be read.' });
		const { figures } = quoteFigures(locals.world, params.token, read.data);
		return { total: String(figures.total), payable: String(figures.payable) };
	});
