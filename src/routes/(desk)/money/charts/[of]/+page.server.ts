import { error } from '@sveltejs/kit';
import { displayDate } from '$lib/core/calendar/conversion';
import { isPlainDate } from '$lib/core/calendar/queries';
import type { Age } from '$lib/core/settlement/statement';
import { orNotFound } from '$lib/server/answers';
import { behindBar, type Behind } from '$lib/server/services/desk/charts';
import type { PageServerLoad } from './$types';

const WORDS = {
	notDue: 'not due',
	'1-30': '1 to 30 days late',
	'31-60': '31 to 60 days late',
	'61-90': '61 to 90 days late',
	over90: 'over 90 days late'
};

/** What the address asks for, and its heading. */
function readBar(of: string, url: URL): { bar: Behind; title: string } | null {
	const text = (name: string) => url.searchParams.get(name) ?? '';
	if (of === 'owed' && isPlainDate(text('on')) && text('age') in WORDS) {
		const age = text('age') as Age;
		return {
			bar: { of, on: text('on'), age },
			title: `Open on ${displayDate(text('on'))}: ${WORDS[age]}`
		};
	}
	if (of === 'likely' && isPlainDate(text('week')))
		return {
			bar: { of, week: text('week') },
			title: `Likely to come in the week from ${displayDate(text('week'))}`
		};
	if (of === 'payer' && /^\d{1,12}$/.test(text('id')))
		return {
			bar: { of, payerId: Number(text('id')) },
			title: 'Days after due, invoice by invoice'
		};
	const month = text('month');
	if ((of === 'billed' || of === 'received' || of === 'withheld') && isPlainDate(`${month}-01`))
		return {
			bar: { of, month },
			title: `${of[0]!.toUpperCase()}${of.slice(1)} in ${displayDate(`${month}-01`).replace(/^1 /, '')}`
		};
	return null;
}

export const load: PageServerLoad = ({ locals, params, url }) => {
	const asked = readBar(params.of, url);
	if (!asked) error(404, 'There is no such page.');
	return {
		title: asked.title,
		inDays: asked.bar.of === 'payer',
		rows: orNotFound(() => behindBar(locals.world, asked.bar))
	};
};
