import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, idOf, orNotFound } from '$lib/server/answers';
import { BANK_COLUMNS, type BankField } from '$lib/core/formats/bank/headings';
import { FieldError } from '$lib/core/refusals';
import {
	forgetColumns,
	leaveFile,
	look,
	readWaiting,
	takeIn,
	type Changed
} from '$lib/server/services/money/bank/bringIn';
import { matchLines } from '$lib/server/services/money/bank/matching';
import type { Actions, PageServerLoad } from './$types';

const LINES_PER_PAGE = 100;
/** As somebody asks about them. */
const SHOWN: readonly BankField[] = [
	'date',
	'in',
	'out',
	'amount',
	'direction',
	'payer',
	'text',
	'more',
	'reference',
	'state',
	'currency',
	'fee',
	'account'
];
const labels = new Map(BANK_COLUMNS.map(({ field, label }) => [field, label]));

/** The columns as they were chosen on the page, which stand in its address; null where nothing was. */
const changedIn = (params: URLSearchParams): Changed | null =>
	params.has('seen') ? Object.fromEntries(params) : null;

export const load: PageServerLoad = async ({ locals, params, url }) => {
	const id = idOf(params.id);
	const changed = changedIn(url.searchParams);
	await readWaiting(locals.world, id, changed);
	return orNotFound(() => {
		let problem = '';
		let looked: ReturnType<typeof look>;
		try {
			looked = look(locals.world, id, changed);
		} catch (error) {
			if (!(error instanceof FieldError) || !changed) throw error;
			problem = error.fields.columns ?? '';
			looked = look(locals.world, id);
		}
		const { file, here, ...about } = looked;
		const from = Math.max(0, Math.floor(Number(url.searchParams.get('from')) || 0));
		return {
			...about,
			id,
			problem,
			format: file.format,
			encoding: file.encoding,
			currency: file.currency,
			csv: file.csv,
			fields: SHOWN.map((field) => ({ field, label: labels.get(field)! })),
			count: file.lines.length,
			from,
			to: Math.min(from + LINES_PER_PAGE, file.lines.length),
			lines: file.lines.slice(from, from + LINES_PER_PAGE).map((line, index) => ({
				...line,
				nth: from + index,
				amount: Number(line.amount),
				here: here[from + index]!
			})),
			leftOutCount: file.leftOut.length,
			leftOut: file.leftOut.slice(0, 200)
		};
	});
};

export const actions: Actions = {
	take: (event) =>
		act(event, z.object({}), async (_values, world) => {
			const id = idOf(event.params.id);
			const changed = changedIn(event.url.searchParams);
			await readWaiting(world, id, changed);
			takeIn(world, id, changed);
			matchLines(world).catch(() => undefined);
			redirect(303, `/money?brought=${id}`);
		}),
	leave: (event) =>
		act(event, z.object({}), (_values, world) => {
			leaveFile(world, idOf(event.params.id));
			redirect(303, '/money');
		}),
	forget: (event) =>
		act(event, z.object({}), (_values, world) => {
			forgetColumns(world, idOf(event.params.id));
			redirect(303, `/money/look/${idOf(event.params.id)}`);
		})
};
