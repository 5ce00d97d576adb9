import { z } from 'zod';
import { act, box, fromOf, orNotFound } from '$lib/server/answers';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import { newToken } from '$lib/server/services/business/keys';
import { sheetByToken } from '$lib/server/services/signing/send';
import { asShown, signatureOf } from '$lib/server/services/signing/sheets';
import { recordSignatures, sheetView, signSheet } from '$lib/server/services/signing/sign';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params }) => {
	const sheet = orNotFound(() => sheetByToken(world.db, params.token));
	const signature = signatureOf(world.db, sheet.id);
	return {
		view: sheetView(world.db, sheet.id)!,
		of: sheet.sha256,
		reach: { phone: sheet.frozen!.seller.phone, email: sheet.frozen!.seller.email },
		signed: signature ? asShown(signature) : null
	};
};

export const actions: Actions = {
	default: (event) =>
		act(
			event,
			z.object({ key: box, of: box, name: box, position: box, signature: box }),
			async (form, world) => {
				const { id } = sheetByToken(world.db, event.params.token);
				const key = form.key || newToken();
				signSheet(world, id, { ...form, key }, { way: 'page', from: fromOf(event) });
				await recordSignatures(world);
				deliverSoon(world);
			}
		)
};
