import { answer, readBody } from '$lib/server/answers';
import { guesserOf } from '$lib/server/guesser';
import { askForPasskey, keepPasskey } from '$lib/server/services/business/passkeys';
import { confirmPassword } from '$lib/server/services/business/signIn';
import { loadBusiness } from '$lib/server/services/business/settings';
import { tell } from '$lib/server/services/messages/watched';
import type { RequestHandler } from './$types';

/** First the password, for what a device is asked; then what it answered. */
export const POST: RequestHandler = (event) =>
	answer(async () => {
		const { world } = event.locals;
		const body = await readBody(event.request);
		if (body.answer === undefined) {
			await confirmPassword(world, String(body.current ?? ''), guesserOf(event));
			return askForPasskey(world);
		}
		await keepPasskey(world, body.answer, String(body.name ?? ''));
		tell(world, 'factor', 'a passkey was added', loadBusiness(world.db).email, guesserOf(event));
		return {};
	});
