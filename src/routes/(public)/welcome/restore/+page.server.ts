import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box } from '$lib/server/answers';
import { dataFile, MIGRATIONS } from '$lib/server/open';
import { isSetupCode } from '$lib/server/services/business/claim';
import {
	forget,
	openBackup,
	restorable,
	RestoreError,
	swapIn
} from '$lib/server/services/keep/restore';
import { saidOfLook } from '$lib/server/services/keep/said';
import { MigrationError } from '$lib/server/db/migrate';
import { FieldError } from '$lib/core/refusals';
import type { Config } from '$lib/server/config';
import type { World } from '$lib/server/world';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ url, locals }) => {
	const code = url.searchParams.get('code') ?? '';
	// What lies here is shown to nobody else.
	const known = isSetupCode(code, locals.config.setupCode);
	return { code, known, found: known ? await restorable(locals.config.dataFolder) : [] };
};

const shape = z.object({ code: box, file: box });

async function opened(
	{ code, file }: z.output<typeof shape>,
	world: World,
	config: Config,
	passphrase: string
) {
	if (!isSetupCode(code, config.setupCode))
		throw new FieldError({
			code: 'That is not the code. It stands in the window in which Axiometer was started, and changes with every start.'
		});
	try {
		return await openBackup(
			file.trim(),
			config.dataFolder,
			passphrase,
			MIGRATIONS,
			world.clock.now()
		);
	} catch (error) {
		if (!(error instanceof RestoreError || error instanceof MigrationError)) throw error;
		throw new FieldError({
			[/passphrase/.test(error.message) ? 'passphrase' : 'file']: error.message
		});
	}
}

export const actions: Actions = {
	look: (event) =>
		act(event, shape, async (given, world, posted) => {
			const { config } = event.locals;
			const ready = await opened(given, world, config, String(posted.get('passphrase') ?? ''));
			await forget(config.dataFolder);
			return { look: saidOfLook(ready), sealed: Boolean(ready.keys), file: given.file.trim() };
		}),
	restore: (event) =>
		act(event, shape, async (given, world, posted) => {
			const { config, reopen } = event.locals;
			const ready = await opened(given, world, config, String(posted.get('passphrase') ?? ''));
			const now = world.clock.now();
			await reopen(() => swapIn(ready, dataFile(config.dataFolder), now));
			redirect(303, '/sign-in?to=/settings/keep/restored');
		})
};
