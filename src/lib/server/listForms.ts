// The forms of every list: views kept by a name and taken away, rows chosen for what is to be done with them.
import { redirect, type Action, type RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
import { MANY_ACTIONS } from '../core/lists/actions';
import type { ListName } from '../core/lists/types';
import { act, box, rowId, tick } from './answers';
import { keepView, removeView } from './services/business/views';
import { rowsOfList } from './services/desk/lists/rows';
import { chooseRows } from './services/many/runs';

/** What goes on elsewhere with the rows that were chosen. */
const ELSEWHERE: Readonly<Record<string, (run: number) => string>> = {
	zip: (run) => `/many/${run}/zip`,
	pdf: (run) => `/many/${run}/pdf`,
	billRun: (run) => `/work/bill?chosen=${run}`
};

/** Rows by their numbers, or all that the address shows; and what is to be done with them. */
const chosen = z.object({
	key: box,
	address: box,
	all: box.transform((value) => value === '1'),
	go: z.enum(['', ...Object.keys(ELSEWHERE), ...MANY_ACTIONS]).catch(''),
	ids: box.transform((value) => (value.match(/\d{1,15}/g) ?? []).map(Number))
});

/** @param listOf the list an event is about */
export const listForms = (listOf: (event: RequestEvent) => ListName) =>
	({
		keepView: (event: RequestEvent) =>
			act(
				event,
				z.object({ name: box, address: box, shared: tick }),
				({ name, address, shared }, world) => {
					keepView(world, listOf(event), name, address, shared);
				}
			),
		removeView: (event: RequestEvent) =>
			act(event, z.object({ id: rowId }), ({ id }, world) => {
				return { bin: removeView(world, listOf(event), id) };
			}),
		choose: (event: RequestEvent) =>
			act(event, chosen, ({ key, ids, all, address, go }, world) => {
				const list = listOf(event);
				const run = chooseRows(
					world,
					key,
					list,
					all ? { view: address, rows: rowsOfList(list) } : { ids }
				);
				redirect(303, ELSEWHERE[go]?.(run) ?? `/many/${run}?do=${go}`);
			})
	}) satisfies Record<string, Action>;
