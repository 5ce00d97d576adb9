import { act, idOf, readForm } from '$lib/server/answers';
import { markPosted, sentReminders } from '$lib/server/services/chasing/messages';
import { loadChaseSettings, saveChaseSettings } from '$lib/server/services/chasing/settings';
import { skipMessage } from '$lib/server/services/chasing/chasing';
import { chaseDayPage } from '$lib/server/services/chasing/day';
import { type Why } from '$lib/server/services/chasing/compose';
import { deliverDue } from '$lib/server/clockwork/delivery';
import { sendAgain, sendTextAgain } from '$lib/server/services/messages/outbox';
import type { Actions, PageServerLoad } from './$types';

const PER_PAGE = 30;
const clock = (minutes: number) =>
	`${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

export const load: PageServerLoad = ({ locals, url }) => {
	const { db } = locals.world;
	const typed = url.searchParams.get('page') ?? '';
	const page = /^[1-9]\d{0,5}$/.test(typed) ? Number(typed) : 1;
	const { hours, ...rest } = loadChaseSettings(db);
	const sent = sentReminders(db, { limit: PER_PAGE + 1, offset: (page - 1) * PER_PAGE });
	return {
		...chaseDayPage(locals.world),
		settings: { ...rest, from: clock(hours.from), to: clock(hours.to) },
		sent: sent.slice(0, PER_PAGE),
		page,
		more: sent.length > PER_PAGE
	};
};

const text = (form: FormData, name: string) => String(form.get(name) ?? '');

export const actions: Actions = {
	settings: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = {
			form: 'settings',
			on: form.has('on'),
			from: text(form, 'from'),
			to: text(form, 'to'),
			quietHours: text(form, 'quietHours'),
			gapDays: text(form, 'gapDays')
		};
		return act(() => saveChaseSettings(locals.world, values), values);
	},
	skip: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => {
			const why = text(form, 'why') as Why;
			skipMessage(locals.world, idOf(text(form, 'payer')), { why, mark: text(form, 'mark') });
			return { skipped: true };
		});
	},
	posted: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => markPosted(locals.world, idOf(text(form, 'message'))));
	},
	again: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => {
			if (form.has('mail')) sendAgain(locals.world, idOf(text(form, 'mail')));
			else sendTextAgain(locals.world, idOf(text(form, 'message')));
			void deliverDue(locals.world);
		});
	}
};
