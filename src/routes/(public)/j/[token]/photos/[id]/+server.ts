import { idOf, orNotFound } from '$lib/server/answers';
import { fileResponse } from '$lib/server/fileResponse';
import { sheetByToken } from '$lib/server/services/signing/send';
import { sheetPhoto } from '$lib/server/services/signing/sheetPaper';
import type { RequestHandler } from './$types';

/** A photo that stands on the job sheet behind this link. */
export const GET: RequestHandler = ({ locals: { world }, params }) => {
	const content = orNotFound(() =>
		sheetPhoto(world, sheetByToken(world.db, params.token), idOf(params.id))
	);
	return fileResponse({ name: 'photo.jpg', type: 'image/jpeg', content });
};
