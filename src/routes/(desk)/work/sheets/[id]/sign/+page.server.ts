import { redirect } from '@sveltejs/kit';
import { act, box, fromOf, idOf, orNotFound } from '$lib/server/answers';
import { loadSheet, signatureOf } from '$lib/server/services/signing/sheets';
import { recordSignatures, sheetView, signSheet } from '$lib/server/services/signing/sign';
import { z } from 'zod';
import type { Actions, PageServerLoad } from './$types';

/** The owner hands the phone over: the sheet alone, and nothing private. */
export const load: PageServerLoad = ({ locals: { world }, params }) => {
	const sheet = orNotFound(() => loadSheet(world.db, idOf(params.id)));
	const view = sheetView(world.db, sheet.id);
	if (!view || signatureOf(world.db, sheet.id)) redirect(303, `/work/sheets/${sheet.id}`);
	return { id: sheet.id, view, of: sheet.sha256 };
};

export const actions: Actions = {
	default: (event) =>
		act(
			event,
			z.object({ key: box, of: box, name: box, position: box, signature: box }),
			async (form, world) => {
				const id = idOf(event.params.id);
				signSheet(world, id, form, { way: 'phone', from: fromOf(event) });
				await recordSignatures(world);
				redirect(303, `/work/sheets/${id}?just=signed`);
			}
		)
};
