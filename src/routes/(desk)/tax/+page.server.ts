import { act } from '$lib/server/answers';
import {
	deductionsPage,
	removeDeductionStatement,
	saveDeductionStatement
} from '$lib/server/services/deductions';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) =>
	deductionsPage(locals.world, url.searchParams.get('year') ?? undefined);

export const actions: Actions = {
	save: async ({ request, locals }) => {
		const form = await request.formData();
		const text = (name: string) => String(form.get(name) ?? '');
		const values = {
			contractor: Number(text('contractor')) || 0,
			month: text('month'),
			gross: text('gross'),
			materials: text('materials'),
			deduction: text('deduction'),
			reference: text('reference')
		};
		return act(() => {
			saveDeductionStatement(locals.world, values);
			return { saved: true as const };
		}, values);
	},
	remove: async ({ request, locals }) => {
		const form = await request.formData();
		return act(() =>
			removeDeductionStatement(
				locals.world,
				Number(form.get('contractor')) || 0,
				String(form.get('month') ?? '')
			)
		);
	}
};
