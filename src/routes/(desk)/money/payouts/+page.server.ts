import { z } from 'zod';
import { act, box, rowId } from '$lib/server/answers';
import { readCursor } from '$lib/core/paging';
import { openOddNews } from '$lib/server/services/money/oddNews';
import { decideOddNews, payoutPage } from '$lib/server/services/money/payouts';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => ({
	...payoutPage(locals.world, readCursor(url.searchParams)),
	odd: openOddNews(locals.world)
});

export const actions: Actions = {
	decide: (event) =>
		act(event, z.object({ news: rowId, decision: box }), ({ news, decision }, world) => {
			decideOddNews(world, news, decision === 'taken' ? 'taken' : 'dismissed');
		})
};
