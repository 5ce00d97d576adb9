import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, byId, idOf, orNotFound, rowId } from '$lib/server/answers';
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

const stageForm = z.object({
	key: box,
	kind: box,
	by: box,
	percent: box,
	amount: box,
	line: z.array(rowId).catch([])
});
type StageForm = z.infer<typeof stageForm>;

const read = ({ key: _, line, ...values }: StageForm, posted: FormData) => ({
	...values,
	lineIds: line,
	done: byId(posted, 'done')
});

export const actions: Actions = {
	preview: (event) =>
		act(event, stageForm, (typed, world, posted) => {
			const values = read(typed, posted);
			return { preview: previewStage(world.db, idOf(event.params.id), values), values };
		}),
	bill: (event) =>
		act(event, stageForm, (typed, world, posted) => {
			const draft = billStage(world, idOf(event.params.id), typed.key, read(typed, posted));
			redirect(303, `/billing/${draft}`);
		}),
	apply: (event) =>
		act(event, stageForm, (typed, world, posted) => {
			applyForPayment(world, idOf(event.params.id), typed.key, read(typed, posted));
			redirect(303, `/work/${event.params.id}`);
		})
};
