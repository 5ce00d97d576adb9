import { z } from 'zod';
import { answer, idOf, readBody } from '$lib/server/answers';
import { issueAndSend } from '$lib/server/services/money/issueAndSend';
import { discardDraft, saveDraft } from '$lib/server/services/invoices/drafts';
import { FieldError } from '$lib/core/refusals';
import { deliverOrLeave } from '$lib/server/clockwork/delivery';
import { tryOut } from '$lib/server/services/invoices/trial';
import type { RequestHandler } from './$types';

const saving = z.object({ version: z.number().int(), sheet: z.unknown() });
const doing = z.discriminatedUnion('action', [
	z.object({
		action: z.literal('issue'),
		version: z.number().int(),
		sendTo: z.string().max(2000).nullable(),
		cc: z.string().max(2000).default(''),
		message: z
			.object({
				subject: z.string().max(1000),
				text: z.string().max(50_000),
				number: z.string().max(60)
			})
			.optional(),
		copyToSelf: z.boolean(),
		useCredit: z.boolean().default(false)
	}),
	z.object({ action: z.literal('tryOut'), key: z.string().min(1).max(100) }),
	z.object({ action: z.enum(['discard', 'restore']) })
]);

function read<T extends z.ZodType>(body: unknown, schema: T): z.output<T> {
	const parsed = schema.safeParse(body);
	if (!parsed.success) throw new FieldError({ '': 'This could not be read.' });
	return parsed.data;
}

export const PUT: RequestHandler = ({ request, locals, params }) =>
	answer(async () => {
		const { version, sheet } = read(await readBody(request), saving);
		return saveDraft(locals.world, idOf(params.id), version, sheet);
	});

export const POST: RequestHandler = ({ request, locals, params }) =>
	answer(async () => {
		const { world } = locals;
		const id = idOf(params.id);
		const wanted = read(await readBody(request), doing);
		switch (wanted.action) {
			case 'discard':
			case 'restore':
				return discardDraft(world, id, wanted.action === 'discard');
			case 'tryOut': {
				const trial = await tryOut(world, id, wanted.key);
				await deliverOrLeave(world);
				return trial;
			}
			case 'issue': {
				const issued = await issueAndSend(world, id, wanted.version, {
					sendTo: wanted.sendTo,
					cc: wanted.cc,
					message: wanted.message,
					copyToSelf: wanted.copyToSelf,
					useInHand: wanted.useCredit
				});
				if (wanted.sendTo !== null) await deliverOrLeave(world);
				return issued;
			}
		}
	});
