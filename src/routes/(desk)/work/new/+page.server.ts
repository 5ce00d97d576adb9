import { redirect } from '@sveltejs/kit';
import { act, readForm } from '$lib/server/answers';
import { customerRecord } from '$lib/server/services/customers/parts';
import { addJob } from '$lib/server/services/jobs/jobs';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const id = Number(url.searchParams.get('customer')) || null;
	return { customer: customerRecord(locals.world.db, id) };
};

export const actions: Actions = {
	default: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const text = (name: string) => String(form.get(name) ?? '');
		const values = {
			title: text('title'),
			customerId: Number(text('customerId')) || undefined,
			siteId: Number(text('siteId')) || null,
			description: text('description'),
			fixedPrice: text('pricing') !== 'asDone',
			hourlyRate: text('hourlyRate')
		};
		const result = await act(
			() => addJob(locals.world, text('key'), values, form.has('enquiry') ? 'enquiry' : 'booked'),
			values
		);
		if (typeof result !== 'number') return result;
		redirect(303, `/work/${result}`);
	}
};
