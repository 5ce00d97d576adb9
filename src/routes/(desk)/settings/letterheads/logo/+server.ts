import { answer, fileOf, readForm } from '$lib/server/answers';
import { saveLogo } from '$lib/server/services/letterheads/logos';
import type { RequestHandler } from './$types';

/** Brings a picture in. */
export const POST: RequestHandler = ({ request, locals: { world } }) =>
	answer(async () => {
		const posted = await readForm(request, world.clock.today());
		const { name, bytes } = await fileOf(posted, 8, 'Choose a picture.');
		return { logo: await saveLogo(world, Buffer.from(bytes), name), name };
	});
