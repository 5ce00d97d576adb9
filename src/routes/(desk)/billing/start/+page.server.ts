import { redirect } from '@sveltejs/kit';
import { act, readForm } from '$lib/server/answers';
import {
	beginFrom,
	keepStartingPoint,
	listStartingPoints,
	removeStartingPoint
} from '$lib/server/services/invoices/startingPoints';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({ points: listStartingPoints(locals.world) });

export const actions: Actions = {
	begin: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const result = await act(() =>
			beginFrom(locals.world, Number(form.get('id')), String(form.get('key') ?? ''))
		);
		if (typeof result !== 'number') return result;
		redirect(303, `/billing/${result}`);
	},
	keep: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const name = String(form.get('name') ?? '');
		return act(() => keepStartingPoint(locals.world, Number(form.get('document')), name), { name });
	},
	remove: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => removeStartingPoint(locals.world, Number(form.get('id'))));
	}
};
