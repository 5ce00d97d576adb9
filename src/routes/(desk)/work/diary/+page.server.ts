import { z } from 'zod';
import { act, box, rowId, tick } from '$lib/server/answers';
import { diaryPage } from '$lib/server/services/desk/diaryPage';
import { addBlock, removeBlock, saveDiaryWays } from '$lib/server/services/diary/ways';
import { renewFeed, revokeFeed } from '$lib/server/services/diary/feed';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, url }) => ({
	...diaryPage(world, url),
	/** Which visit is looked at. */
	open: Number(url.searchParams.get('visit')) || null,
	/** What is to be booked in at once. */
	book: Number(url.searchParams.get('book')) || null
});

export const actions: Actions = {
	block: (event) =>
		act(event, z.object({ title: box, from: box, to: box, personId: rowId }), (form, world) => {
			addBlock(world, form);
		}),
	removeBlock: (event) =>
		act(event, z.object({ id: rowId }), ({ id }, world) => removeBlock(world, id)),
	ways: (event) =>
		act(
			event,
			z.object({ from: box, to: box, arrivalMinutes: box, travelMinutes: box, dayBefore: tick }),
			(form, world) => saveDiaryWays(world, form)
		),
	feed: (event) => act(event, z.object({}), (_form, world) => renewFeed(world)),
	revoke: (event) => act(event, z.object({}), (_form, world) => revokeFeed(world))
};
