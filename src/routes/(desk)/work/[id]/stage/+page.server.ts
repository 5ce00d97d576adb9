import { redirect } from '@sveltejs/kit';
import { act, idOf, orNotFound, readForm } from '$lib/server/answers';
import { jobPage } from '$lib/server/services/desk/jobPage';
import { billStage, previewStage } from '$lib/server/services/billing/stages';
import { applyForPayment } from '$lib/server/services/billing/applications';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
	const { job, work, customer, contractLines, position, canStage } = orNotFound(() =>
		jobPage(locals.world, idOf(params.id))
	);
	return { job, lines: work.lines, customer, contractLines, position, canStage };
};

function read(form: FormData) {
	const text = (name: string) => String(form.get(name) ?? '');
	return {
		kind: text('kind'),
		by: text('by'),
		percent: text('percent'),
		amount: text('amount'),
		lineIds: form.getAll('line').map(Number),
		done: Object.fromEntries(
			[...form].flatMap(([name, value]) =>
				name.startsWith('done.') ? [[name.slice(5), String(value)]] : []
			)
		)
	};
}

export const actions: Actions = {
	preview: async ({ request, locals, params }) => {
		const values = read(await readForm(request, locals.world.clock.today()));
		return act(
			() => ({ preview: previewStage(locals.world.db, idOf(params.id), values), values }),
			values
		);
	},
	bill: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = read(form);
		const result = await act(
			() => billStage(locals.world, idOf(params.id), String(form.get('key') ?? ''), values),
			values
		);
		if (typeof result !== 'number') return result;
		redirect(303, `/billing/${result}`);
	},
	apply: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = read(form);
		const result = await act(
			() => applyForPayment(locals.world, idOf(params.id), String(form.get('key') ?? ''), values),
			values
		);
		if (typeof result !== 'number') return result;
		redirect(303, `/work/${params.id}`);
	}
};
