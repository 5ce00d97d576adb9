import { redirect } from '@sveltejs/kit';
import { CHANNELS } from '$lib/core/chasing/types';
import { act, idOf, orNotFound, readForm } from '$lib/server/answers';
import { sentReminders } from '$lib/server/services/chasing/messages';
import {
	messageFor,
	saveWording,
	sendNow,
	skipMessage
} from '$lib/server/services/chasing/chasing';
import { type Why } from '$lib/server/services/chasing/compose';
import { chasePreviewFacts } from '$lib/server/services/chasing/chasing';
import { deliverDue } from '$lib/server/clockwork/delivery';
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

const text = (form: FormData, name: string) => String(form.get(name) ?? '');

function wordsOf(form: FormData) {
	return {
		why: text(form, 'why') as Why,
		mark: text(form, 'mark'),
		subject: text(form, 'subject'),
		text: text(form, 'text'),
		channel: CHANNELS.find((one) => one === text(form, 'channel')) ?? ('mail' as const)
	};
}

export const actions: Actions = {
	send: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = wordsOf(form);
		const result = await act(() => {
			const key = text(form, 'key');
			return { sent: sendNow(locals.world, idOf(params.payer), { ...values, key }) };
		}, values);
		if (!('sent' in result)) return result;
		void deliverDue(locals.world);
		redirect(303, `/owed/chasing?sent=${result.sent}#written`);
	},
	keep: async ({ request, locals, params }) => {
		const values = wordsOf(await readForm(request, locals.world.clock.today()));
		return act(() => {
			saveWording(locals.world, idOf(params.payer), values);
			return { kept: true };
		}, values);
	},
	skip: async ({ request, locals, params }) => {
		const { why, mark } = wordsOf(await readForm(request, locals.world.clock.today()));
		const result = await act(() => {
			skipMessage(locals.world, idOf(params.payer), { why, mark });
			return { skipped: true };
		});
		if (!('skipped' in result)) return result;
		redirect(303, '/owed/chasing');
	}
};
