import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound } from '$lib/server/answers';
import { BANK_COLUMNS } from '$lib/core/formats/bankFile';
import { askedFile, confirmColumns } from '$lib/server/services/money/bank/bringIn';
import { matchLines } from '$lib/server/services/money/bank/matching';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
	const file = orNotFound(() => askedFile(locals.world, idOf(params.id)));
	return {
		headings: file.headings,
		sample: file.sample,
		layout: file.layout!,
		read: file.lines.length,
		unread: file.problems.length,
		fields: BANK_COLUMNS.map(({ field, label }) => ({ field, label }))
	};
};

const layoutForm = z.object({
	account: box,
	dates: box,
	...Object.fromEntries(BANK_COLUMNS.map(({ field }) => [field, box]))
});

export const actions: Actions = {
	default: (event) =>
		act(event, layoutForm, ({ account, dates, ...columns }, world) => {
			const layout: Record<string, unknown> = { account, dates: dates || 'dmy' };
			for (const [field, typed] of Object.entries(columns))
				if (/^\d{1,3}$/.test(String(typed))) layout[field] = Number(typed);
			confirmColumns(world, idOf(event.params.id), layout);
			matchLines(world).catch(() => undefined);
			redirect(303, '/money');
		})
};
