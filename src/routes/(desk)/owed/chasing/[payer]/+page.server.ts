import { redirect } from '@sveltejs/kit';
import { CHANNELS } from '$lib/core/chasing/types';
import { z } from 'zod';
import { act, box, idOf, orNotFound } from '$lib/server/answers';
import { sentReminders } from '$lib/server/services/chasing/messages';
import {
	messageFor,
	saveWording,
	sendNow,
	skipMessage
} from '$lib/server/services/chasing/chasing';
import { type Why } from '$lib/server/services/chasing/compose';
import { chasePreviewFacts } from '$lib/server/services/chasing/chasing';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => {
		const payerId = idOf(params.payer);
		const message = messageFor(locals.world, payerId);
		return {
			message,
			facts: chasePreviewFacts(locals.world, message),
			before: sentReminders(locals.world.db, { payerId, limit: 8 })
		};
	});

const wordsForm = z.object({
	key: box,
	why: z.string() as z.ZodType<Why>,
	mark: box,
	subject: box,
	text: box,
	channel: z.enum(CHANNELS).catch('mail')
});

export const actions: Actions = {
	send: (event) =>
		act(event, wordsForm, (values, world) => {
			const sent = sendNow(world, idOf(event.params.payer), values);
			deliverSoon(world);
			redirect(303, `/owed/chasing?sent=${sent}#written`);
		}),
	keep: (event) =>
		act(event, wordsForm, ({ key: _, ...values }, world) => {
			saveWording(world, idOf(event.params.payer), values);
			return { kept: true };
		}),
	skip: (event) =>
		act(event, wordsForm, ({ why, mark }, world) => {
			skipMessage(world, idOf(event.params.payer), { why, mark });
			redirect(303, '/owed/chasing');
		})
};
