import { z } from 'zod';
import { act, box, tick } from '$lib/server/answers';
import { sessionOf } from '$lib/server/cookies';
import { guesserOf } from '$lib/server/guesser';
import { makeBackup, saveBackupSetting } from '$lib/server/services/keep/backups';
import { keepPage } from '$lib/server/services/keep/backupPage';
import { shutOut } from '$lib/server/services/keep/stolen';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => keepPage(locals.world);

export const actions: Actions = {
	backup: (event) =>
		act(event, z.object({}), async (_values, world) => {
			const { problem } = await makeBackup(world, 'hand');
			return { problem };
		}),
	setting: (event) =>
		act(event, z.object({ folder: box, sealed: tick }), async (given, world, posted) => {
			const typed = (name: string) => String(posted.get(name) ?? '');
			await saveBackupSetting(world, {
				...given,
				passphrase: typed('passphrase'),
				again: typed('again')
			});
		}),
	stolen: (event) =>
		act(event, z.object({}), (_values, world) => {
			const current = sessionOf(event.cookies, event.locals.config) ?? '';
			const anew = shutOut(world, current, guesserOf(event));
			deliverSoon(world);
			return { anew };
		})
};
