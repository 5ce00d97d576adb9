import { z } from 'zod';
import { answer, idOf, readBody } from '$lib/server/answers';
import { FieldError } from '$lib/core/refusals';
import { deliverOrLeave } from '$lib/server/clockwork/delivery';
import { discardQuote, saveQuote } from '$lib/server/services/quotes/quotes';
import { tryQuote } from '$lib/server/services/quotes/trial';
import { prepareQuote, sendQuote } from '$lib/server/services/quotes/send';
import type { RequestHandler } from './$types';

const saving = z.object({ version: z.number().int(), sheet: z.unknown() });
const doing = z.discriminatedUnion('action', [
	z.object({
		action: z.literal('send'),
		version: z.number().int(),
		key: z.string().min(1).max(100),
		byHand: z.boolean().default(false),
		to: z.string().max(2000).default(''),
		subject: z.string().max(1000).default(''),
		text: z.string().max(50_000).default('')
	}),
	z.object({ action: z.literal('tryOut'), key: z.string().min(1).max(100) }),
	z.object({ action: z.enum(['discard', 'restore']) })
]);

function read<T extends z.ZodType>(body: unknown, schema: T): z.output<T> {
	const parsed = schema.safeParse(body);
	if (!parsed.success) throw new FieldError({ '': 'This could not be read.' });
	return parsed.data;
}

/** What it goes out with, and what stands in the way. */
export const GET: RequestHandler = ({ locals, params }) =>
	answer(() => prepareQuote(locals.world, idOf(params.id)));

export const PUT: RequestHandler = ({ request, locals, params }) =>
	answer(async () => {
		const { version, sheet } = read(await readBody(request), saving);
		return saveQuote(locals.world, idOf(params.id), version, sheet);
	});

export const POST: RequestHandler = ({ request, locals: { world }, params }) =>
	answer(async () => {
		const id = idOf(params.id);
		const wanted = read(await readBody(request), doing);
		if (wanted.action === 'tryOut') {
			const trial = await tryQuote(world, id, wanted.key);
			await deliverOrLeave(world);
			return trial;
		}
		if (wanted.action !== 'send') return discardQuote(world, id, wanted.action === 'discard');
		const { version, ...form } = wanted;
		const sent = await sendQuote(world, id, version, form);
		if (!form.byHand) await deliverOrLeave(world);
		return sent;
	});
