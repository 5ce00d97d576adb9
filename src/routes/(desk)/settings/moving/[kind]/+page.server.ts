import { z } from 'zod';
import { act, box, fileOf, orNotFound, tick } from '$lib/server/answers';
import { looked } from '$lib/server/brought';
import { asksForReturns, moverOf } from '$lib/server/services/moving/page';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ params, locals }) =>
	orNotFound(() => {
		const { kind, columns } = moverOf(params.kind);
		return {
			kind,
			/** A press of its own for each look. */
			key: crypto.randomUUID(),
			columns: columns.map(({ label, required = false }) => ({ label, required })),
			asksForReturns: asksForReturns(locals.world)
		};
	});

const wishes = z.object({ key: box, addCustomers: tick, returnedUntil: box });
const file = (posted: FormData) =>
	fileOf(posted, 25, 'Choose a file.', 'At most 25 MB can be read.');

export const actions: Actions = {
	preview: (event) =>
		act(event, wishes, async (form, world, posted) => {
			const { name, bytes } = await file(posted);
			return {
				preview: looked(await moverOf(event.params.kind).preview(world, bytes, { ...form, name }))
			};
		}),
	write: (event) =>
		act(event, wishes, async (form, world, posted) => {
			const { name, bytes } = await file(posted);
			return {
				report: looked(await moverOf(event.params.kind).write(world, bytes, { ...form, name }))
			};
		})
};
