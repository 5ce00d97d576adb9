import { error, redirect } from '@sveltejs/kit';
import { act, orNotFound, readForm } from '$lib/server/answers';
import { discardDraft, loadDraft } from '$lib/server/services/invoices/drafts';
import { addRepeat } from '$lib/server/services/repeats/repeats';
import { cardOf } from '$lib/server/services/repeats/keptCards';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const from = Number(url.searchParams.get('from'));
	if (!Number.isSafeInteger(from) || from < 1) error(404, 'There is no such invoice.');
	const document = orNotFound(() => loadDraft(locals.world.db, from));
	const line = document.sheet.rows.find((row) => row.type === 'line');
	return {
		from,
		customer: document.customerName,
		number: document.number,
		draft: document.state === 'draft',
		total: document.total,
		title: line?.type === 'line' ? line.description.split('\n')[0]!.slice(0, 80) : '',
		card: document.customerId
			? (cardOf(locals.world.db, document.customerId)?.lastDigits ?? '')
			: ''
	};
};

export const actions: Actions = {
	default: async ({ request, locals, url }) => {
		const form = await readForm(request, locals.world.clock.today());
		const from = Number(url.searchParams.get('from'));
		const values = Object.fromEntries(
			[...form].flatMap(([name, value]) =>
				value === '' || name === 'key' || name === 'discard' ? [] : [[name, String(value)]]
			)
		);
		const result = await act(
			() => addRepeat(locals.world, String(form.get('key') ?? ''), from, values),
			values
		);
		if (typeof result !== 'number') return result;
		// The draft it began from has done its work; what was issued meanwhile stays.
		if (form.has('discard')) await act(() => discardDraft(locals.world, from, true));
		redirect(303, `/billing/repeats/${result}`);
	}
};
