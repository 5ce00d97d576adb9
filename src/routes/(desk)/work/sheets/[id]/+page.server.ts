import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound } from '$lib/server/answers';
import { deliverOrLeave } from '$lib/server/clockwork/delivery';
import { jobPath, sheetPage } from '$lib/server/services/desk/sheetPage';
import { sendSheet } from '$lib/server/services/signing/send';
import { discardSheet } from '$lib/server/services/signing/sheets';
import { finishSheet } from '$lib/server/services/signing/sheetPaper';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params, url }) => ({
	...orNotFound(() => sheetPage(world, idOf(params.id))),
	just: url.searchParams.get('just') ?? ''
});

export const actions: Actions = {
	finish: (event) =>
		act(event, z.object({ version: box, then: box }), async ({ version, then }, world) => {
			const id = idOf(event.params.id);
			await finishSheet(world, id, Number(version));
			redirect(303, `/work/sheets/${id}${then === 'sign' ? '/sign' : ''}`);
		}),
	discard: (event) =>
		act(event, z.object({}), (_values, world) => {
			redirect(303, jobPath(discardSheet(world, idOf(event.params.id))));
		}),
	send: (event) =>
		act(event, z.object({ key: box, to: box, subject: box, text: box }), async (form, world) => {
			sendSheet(world, idOf(event.params.id), form);
			await deliverOrLeave(world);
		})
};
