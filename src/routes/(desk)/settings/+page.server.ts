import { redirect } from '@sveltejs/kit';
import { act, formValues, readForm } from '$lib/server/answers';
import { writeRate } from '$lib/core/regimes/gb/latePayment';
import { businessSettings, saveBusiness } from '$lib/server/services/business/settings';
import { loadRates, missingRate, saveRate } from '$lib/server/services/owed/referenceRates';
import { changePassword } from '$lib/server/services/business/signIn';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({
	settings: businessSettings(locals.world),
	rates: loadRates(locals.world.db)
		.reverse()
		.map(({ from, rate }) => ({ from, rate: writeRate(rate) })),
	missingRate: missingRate(locals.world)
});

export const actions: Actions = {
	business: async ({ request, locals }) => {
		const values = formValues(await readForm(request, locals.world.clock.today()));
		return act(() => {
			saveBusiness(locals.world, values);
			return { saved: true as const };
		}, values);
	},
	rate: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => {
			saveRate(locals.world, String(form.get('from') ?? ''), String(form.get('rate') ?? ''));
			return { saved: true as const };
		});
	},
	password: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const result = await act(async () => {
			await changePassword(
				locals.world,
				String(form.get('current') ?? ''),
				String(form.get('password') ?? '')
			);
			return 'changed' as const;
		});
		if (result !== 'changed') return result;
		redirect(303, '/sign-in');
	}
};
