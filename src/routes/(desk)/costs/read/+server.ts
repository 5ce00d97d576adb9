import { answer, fileOf, readForm } from '$lib/server/answers';
import { proposeFrom } from '$lib/server/services/costs/receipts';
import type { RequestHandler } from './$types';

/** What a receipt's photo seems to say. Nothing of it is kept. */
export const POST: RequestHandler = ({ request, locals: { world } }) =>
	answer(async () => {
		const posted = await readForm(request, world.clock.today());
		const { bytes } = await fileOf(posted, 25, 'Choose a photo.');
		return proposeFrom(world, Buffer.from(bytes));
	});
