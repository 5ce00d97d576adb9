import { redirect } from '@sveltejs/kit';
import { act, idOf, orNotFound, readForm } from '$lib/server/answers';
import { BILLING_SHAPES } from '$lib/core/jobs/billing';
import { JOB_STATES } from '$lib/core/jobs/types';
import { addJobFile, removeJobFile } from '$lib/server/services/jobs/files';
import { LARGEST_FILE } from '$lib/server/services/business/files';
import { removeTime, saveTime, startClock, stopClock } from '$lib/server/services/jobs/time';
import { removeCost, saveCost } from '$lib/server/services/jobs/costs';
import { removeVisit, saveVisit } from '$lib/server/services/jobs/visits';
import { FieldError } from '$lib/core/refusals';
import { jobPage } from '$lib/server/services/desk/jobPage';
import { moveJob, removeJob } from '$lib/server/services/jobs/jobs';
import { approveApplication, withdrawApplication } from '$lib/server/services/billing/applications';
import { releaseRetention } from '$lib/server/services/billing/retentions';
import { billJob, jobAsPattern } from '$lib/server/services/billing/toBill';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => jobPage(locals.world, idOf(params.id)));

const text = (form: FormData, name: string) => String(form.get(name) ?? '');
const number = (form: FormData, name: string) => Number(text(form, name)) || null;

export const actions: Actions = {
	move: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const to = JOB_STATES.find((state) => state === form.get('to'));
		if (to) return act(() => moveJob(locals.world, idOf(params.id), to, text(form, 'on')));
	},
	start: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => {
			startClock(locals.world, text(form, 'key'), idOf(params.id));
		});
	},
	stop: ({ locals }) =>
		act(() => {
			stopClock(locals.world);
		}),
	time: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = {
			date: text(form, 'date'),
			person: text(form, 'person'),
			hours: text(form, 'hours'),
			rate: text(form, 'rate'),
			hourlyCost: text(form, 'hourlyCost'),
			chargeable: form.has('chargeable'),
			note: text(form, 'note')
		};
		return act(
			() => ({
				done: saveTime(
					locals.world,
					idOf(params.id),
					text(form, 'key'),
					number(form, 'entry'),
					values
				)
			}),
			{ ...values, form: 'time' }
		);
	},
	removeTime: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => removeTime(locals.world, idOf(params.id), number(form, 'entry') ?? 0));
	},
	cost: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = {
			date: text(form, 'date'),
			kind: text(form, 'kind') || 'materials',
			description: text(form, 'description'),
			quantity: text(form, 'quantity'),
			unit: text(form, 'unit'),
			unitCost: text(form, 'unitCost'),
			markUp: text(form, 'markUp'),
			unitPrice: text(form, 'unitPrice'),
			chargeable: form.has('chargeable'),
			itemId: number(form, 'itemId')
		};
		return act(
			() => ({
				done: saveCost(
					locals.world,
					idOf(params.id),
					text(form, 'key'),
					number(form, 'entry'),
					values
				)
			}),
			{ ...values, form: 'cost' }
		);
	},
	removeCost: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => removeCost(locals.world, idOf(params.id), number(form, 'entry') ?? 0));
	},
	visit: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const values = {
			date: text(form, 'date'),
			from: text(form, 'from'),
			to: text(form, 'to'),
			person: text(form, 'person'),
			note: text(form, 'note'),
			done: form.has('done')
		};
		return act(
			() => ({ done: saveVisit(locals.world, idOf(params.id), number(form, 'entry'), values) }),
			{ ...values, form: 'visit' }
		);
	},
	removeVisit: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => removeVisit(locals.world, idOf(params.id), number(form, 'entry') ?? 0));
	},
	file: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const files = form.getAll('file').filter((one): one is File => one instanceof File);
		return act(async () => {
			if (files.length === 0) throw new FieldError({ file: 'Choose a photo or file.' });
			for (const file of files) {
				if (file.size > LARGEST_FILE)
					throw new FieldError({ file: `“${file.name}” is larger than 25 MB.` });
				const bytes = Buffer.from(await file.arrayBuffer());
				await addJobFile(locals.world, idOf(params.id), file.name, bytes);
			}
		});
	},
	repeat: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const draft = await act(() => jobAsPattern(locals.world, idOf(params.id), text(form, 'key')));
		if (typeof draft !== 'number') return draft;
		redirect(303, `/billing/repeats/new?from=${draft}`);
	},
	removeFile: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => removeJobFile(locals.world, idOf(params.id), number(form, 'entry') ?? 0));
	},
	bill: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const shape = BILLING_SHAPES.find((one) => one === form.get('shape')) ?? 'lines';
		const id = idOf(params.id);
		const result = await act(() => {
			if (form.has('finish')) moveJob(locals.world, id, 'finished');
			return billJob(locals.world, id, shape, text(form, 'key'));
		});
		if (typeof result !== 'number') return result;
		redirect(303, `/billing/${result}`);
	},
	approve: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		const result = await act(() =>
			approveApplication(locals.world, number(form, 'stage') ?? 0, {
				amount: text(form, 'amount'),
				paidOn: text(form, 'paidOn')
			})
		);
		if (typeof result !== 'number') return result;
		redirect(303, `/billing/${result}`);
	},
	withdraw: async ({ request, locals }) => {
		const form = await readForm(request, locals.world.clock.today());
		return act(() => withdrawApplication(locals.world, number(form, 'stage') ?? 0));
	},
	release: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const result = await act(() =>
			releaseRetention(locals.world, idOf(params.id), text(form, 'key'))
		);
		if (typeof result !== 'number') return result;
		redirect(303, `/billing/${result}`);
	},
	remove: async ({ locals, params }) => {
		const result = await act(() => {
			removeJob(locals.world, idOf(params.id));
			return 'removed' as const;
		});
		if (result !== 'removed') return result;
		redirect(303, '/work');
	}
};
