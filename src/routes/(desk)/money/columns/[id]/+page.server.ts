import { redirect } from '@sveltejs/kit';
import { act, idOf, orNotFound, readForm } from '$lib/server/answers';
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

export const actions: Actions = {
	default: async ({ request, locals, params }) => {
		const form = await readForm(request, locals.world.clock.today());
		const layout: Record<string, unknown> = {
			account: String(form.get('account') ?? ''),
			dates: String(form.get('dates') ?? 'dmy')
		};
		for (const { field } of BANK_COLUMNS) {
			const typed = String(form.get(field) ?? '');
			if (/^\d{1,3}$/.test(typed)) layout[field] = Number(typed);
		}
		const result = await act(() => confirmColumns(locals.world, idOf(params.id), layout), layout);
		if (!('importId' in result)) return result;
		matchLines(locals.world).catch(() => undefined);
		redirect(303, '/money');
	}
};
