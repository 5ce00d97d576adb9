import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, rowId } from '$lib/server/answers';
import { useAllInHand } from '$lib/server/services/money/useInHand';
import { FieldError } from '$lib/core/refusals';
import {
	currenciesInUse,
	readStatementOptions,
	statementOverview
} from '$lib/server/services/owed/statements';
import {
	continueStatements,
	listStatementRuns,
	startStatements
} from '$lib/server/services/owed/statementRuns';
import { statementChoice } from '$lib/ui/owed/choice';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const { world } = locals;
	const choice = statementChoice(url.searchParams, world.clock.today());
	const payer = /^\d{1,12}$/.test(url.searchParams.get('payer') ?? '')
		? Number(url.searchParams.get('payer'))
		: undefined;
	let wrong: Record<string, string> = {};
	let shown: ReturnType<typeof statementOverview> = { rows: [], hidden: 0 };
	try {
		shown = statementOverview(world, readStatementOptions(choice.options), {
			zero: choice.zero || payer !== undefined,
			archived: choice.archived,
			...(payer === undefined ? {} : { payerId: payer })
		});
	} catch (error) {
		if (!(error instanceof FieldError)) throw error;
		wrong = error.fields;
	}
	return {
		choice,
		payer: payer ?? null,
		...shown,
		currencies: currenciesInUse(world.db),
		wrong,
		all: url.searchParams.has('all'),
		query: url.searchParams.toString(),
		runs: listStatementRuns(world)
	};
};

export const actions: Actions = {
	start: (event) =>
		act(
			event,
			z.object({
				key: box,
				action: z.enum(['send', 'make']).catch('send'),
				payer: z.array(rowId).catch([])
			}),
			({ key, action, payer }, world) => {
				const { options } = statementChoice(event.url.searchParams, world.clock.today());
				const run = startStatements(world, key, options, payer.filter(Boolean), action);
				// Goes on by itself; what fails here is taken up by the clockwork.
				continueStatements(world).catch(() => undefined);
				redirect(303, `/owed/statements/${run}`);
			}
		),
	/** Uses a payer's credit for what is open, the one due first, first. */
	apply: (event) =>
		act(event, z.object({ payer: rowId, key: box }), ({ payer, key }, world) => ({
			applied: useAllInHand(world, payer, key)
		}))
};
