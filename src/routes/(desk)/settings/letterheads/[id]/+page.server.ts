import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, idOf, orNotFound, rowId } from '$lib/server/answers';
import { isRegistered } from '$lib/server/services/business/settings';
import { documentsToShow } from '$lib/server/services/desk/letterheadPreview';
import {
	archiveLetterhead,
	loadLetterhead,
	makeLetterhead,
	makeStandard,
	renameLetterhead,
	usersOf
} from '$lib/server/services/letterheads/letterheads';
import { logoName } from '$lib/server/services/letterheads/logos';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params }) =>
	orNotFound(() => {
		const letterhead = loadLetterhead(world.db, idOf(params.id));
		const { logo } = letterhead.look;
		return {
			letterhead,
			users: usersOf(world.db, letterhead.id),
			logoName: logo === null ? null : logoName(world.db, logo),
			registered: isRegistered(world),
			documents: documentsToShow(world.db, '')
		};
	});

export const actions: Actions = {
	rename: (event) =>
		act(event, z.object({ name: box }), ({ name }, world) =>
			renameLetterhead(world, idOf(event.params.id), name)
		),
	copy: (event) =>
		act(event, z.object({ key: box }), ({ key }, world) =>
			redirect(303, `/settings/letterheads/${makeLetterhead(world, key, idOf(event.params.id))}`)
		),
	standard: (event) =>
		act(event, z.object({ id: rowId }), (_values, world) =>
			makeStandard(world, idOf(event.params.id))
		),
	archive: (event) =>
		act(event, z.object({ id: rowId }), (_values, world) => {
			archiveLetterhead(world, idOf(event.params.id), true);
			redirect(303, '/settings/letterheads');
		})
};
