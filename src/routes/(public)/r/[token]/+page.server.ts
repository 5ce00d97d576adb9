import { orNotFound } from '$lib/server/answers';
import { payingTogether } from '$lib/server/paying';
import { noteReminderOpened } from '$lib/server/services/chasing/messages';
import { payReminder, reminderPage } from '$lib/server/services/chasing/reminderPage';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params, url }) => {
	const shown = orNotFound(() => reminderPage(locals.world, params.token));
	// The owner looking at it is not the payer.
	if (!locals.signedIn) noteReminderOpened(locals.world, params.token);
	return { ...shown, from: url.searchParams.get('from') ?? '' };
};

export const actions: Actions = payingTogether(payReminder);
