import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, orNotFound, rowId } from '$lib/server/answers';
import { WORDINGS } from '$lib/core/wordings/kinds';
import { fieldsFor, somethingReal } from '$lib/server/services/desk/wordingPreview';
import {
	loadWording,
	readKind,
	restoreWording,
	saveWording
} from '$lib/server/services/wordings/wordings';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) =>
	orNotFound(() => {
		const kind = readKind(params.kind);
		const { world } = locals;
		const real = somethingReal(world.db, kind, '');
		const { title, when, fields, standard } = WORDINGS[kind];
		return {
			kind,
			title,
			when,
			fields,
			standard,
			wording: loadWording(world.db, kind),
			real,
			shown: fieldsFor(world, kind, real[0]?.id ?? null)
		};
	});

export const actions: Actions = {
	save: (event) =>
		act(
			event,
			z.object({ subject: box, text: box, version: rowId }),
			({ version, ...words }, world) => {
				saveWording(world, readKind(event.params.kind), version, words);
				redirect(303, '/settings/wordings');
			}
		),
	standard: (event) =>
		act(event, z.object({}), (_values, world) => {
			restoreWording(world, readKind(event.params.kind));
			redirect(303, '/settings/wordings');
		})
};
