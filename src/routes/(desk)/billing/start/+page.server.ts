import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, rowId } from '$lib/server/answers';
import {
	beginFrom,
	keepStartingPoint,
	listStartingPoints,
	removeStartingPoint
} from '$lib/server/services/invoices/startingPoints';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals }) => ({ points: listStartingPoints(locals.world) });

export const actions: Actions = {
	begin: (event) =>
		act(event, z.object({ id: rowId, key: box }), ({ id, key }, world) => {
			redirect(303, `/billing/${beginFrom(world, id, key)}`);
		}),
	keep: (event) =>
		act(event, z.object({ document: rowId, name: box }), ({ document, name }, world) => {
			keepStartingPoint(world, document, name);
		}),
	remove: (event) =>
		act(event, z.object({ id: rowId }), ({ id }, world) => {
			return { bin: removeStartingPoint(world, id) };
		})
};
