import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, fromOf, idOf, orNotFound } from '$lib/server/answers';
import { documentDetail } from '$lib/server/services/desk/documents';
import { recordSignatures, signDocument, signedHash } from '$lib/server/services/signing/sign';
import type { Actions, PageServerLoad } from './$types';

/** The owner hands the phone over: the invoice alone, and nothing private. */
export const load: PageServerLoad = ({ locals: { world }, params }) => {
	const { id, view, maySign, signed, frozen } = orNotFound(() =>
		documentDetail(world, idOf(params.id))
	);
	if (!maySign || signed) redirect(303, `/billing/${id}`);
	return {
		id,
		view,
		of: signedHash(world.db, id) ?? '',
		firm: frozen.customer.kind !== 'household'
	};
};

export const actions: Actions = {
	default: (event) =>
		act(
			event,
			z.object({ key: box, of: box, what: box, name: box, position: box, signature: box }),
			async (form, world) => {
				const id = idOf(event.params.id);
				signDocument(world, id, form, { way: 'phone', from: fromOf(event) });
				await recordSignatures(world);
				redirect(303, `/billing/${id}`);
			}
		)
};
