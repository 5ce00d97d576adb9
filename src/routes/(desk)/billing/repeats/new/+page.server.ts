import { addDays } from '$lib/core/calendar/manipulation';
import { nextOccurrences, type RepeatRule } from '$lib/core/calendar/recurrence';
import type { PlainDate } from '$lib/core/calendar/types';
import { error, redirect } from '@sveltejs/kit';
import { act, box, boxesOf, filled, orNotFound, tick } from '$lib/server/answers';
import { ConflictError, NotFoundError } from '$lib/core/refusals';
import { discardDraft, loadDraft } from '$lib/server/services/invoices/drafts';
import { addRepeat, repeatForm } from '$lib/server/services/repeats/repeats';
import { cardOf } from '$lib/server/services/repeats/keptCards';
import type { World } from '$lib/server/world';
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
		start: firstDay(
			document.state === 'draft' ? null : document.issueDate,
			locals.world.clock.today()
		),
		title: line?.type === 'line' ? line.description.split('\n')[0]!.slice(0, 80) : '',
		card: document.customerId
			? (cardOf(locals.world.db, document.customerId)?.lastDigits ?? '')
			: ''
	};
};

/** A draft becomes the first of them; after what is issued already the next one comes a month on, and not in the past. */
function firstDay(issued: PlainDate | null, today: PlainDate): PlainDate {
	if (issued === null) return today;
	const monthly: RepeatRule = {
		start: issued,
		every: 1,
		unit: 'month',
		end: { never: true },
		weekend: 'asIs'
	};
	return nextOccurrences(monthly, addDays(issued > today ? issued : today, 1), 1)[0]!.nominal;
}

export const actions: Actions = {
	default: (event) =>
		act(
			event,
			boxesOf(repeatForm).extend({ key: box, discard: tick }),
			async ({ key, discard, ...values }, world) => {
				const from = Number(event.url.searchParams.get('from'));
				const repeat = addRepeat(world, key, from, filled(values));
				// The draft it began from has done its work; what was issued meanwhile stays.
				if (discard) dropDraft(world, from);
				redirect(303, `/billing/repeats/${repeat}`);
			}
		)
};

function dropDraft(world: World, id: number): void {
	try {
		discardDraft(world, id, true);
	} catch (problem) {
		if (!(problem instanceof ConflictError || problem instanceof NotFoundError)) throw problem;
	}
}
