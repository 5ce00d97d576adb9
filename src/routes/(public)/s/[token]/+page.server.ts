import { orNotFound } from '$lib/server/answers';
import { payingTogether } from '$lib/server/paying';
import {
	noteStatementOpened,
	payStatement,
	statementPage
} from '$lib/server/services/owed/statementPage';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params, url }) => {
	const shown = orNotFound(() => statementPage(locals.world, params.token));
	// The owner looking at it is not the payer.
	if (!locals.signedIn) noteStatementOpened(locals.world, params.token);
	return { ...shown, from: url.searchParams.get('from') ?? '' };
};

export const actions: Actions = payingTogether(payStatement);
