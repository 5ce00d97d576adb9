import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, boxesOf } from '$lib/server/answers';
import { FieldError } from '$lib/core/refusals';
import { LOOKS, lookOf, sessionOf, setLook } from '$lib/server/cookies';
import { guesserOf } from '$lib/server/guesser';
import { writeRate } from '$lib/core/regimes/gb/latePayment';
import { businessSettings, giveMissing } from '$lib/server/services/business/settings';
import { businessForm } from '$lib/server/services/business/form';
import { loadRates, missingRate, saveRate } from '$lib/server/services/owed/referenceRates';
import { lastAudit } from '$lib/server/services/business/audits';
import { backupTrouble, lastWhole } from '$lib/server/services/keep/backups';
import { changeWatchedPassword, saveWatchedPart } from '$lib/server/services/messages/watched';
import { endSession, openSessions } from '$lib/server/services/business/sessions';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, cookies }) => ({
	today: locals.world.clock.today(),
	look: lookOf(cookies),
	settings: businessSettings(locals.world),
	rates: loadRates(locals.world.db)
		.reverse()
		.map(({ from, rate }) => ({ from, rate: writeRate(rate) })),
	missingRate: missingRate(locals.world),
	audit: lastAudit(locals.world.db) ?? null,
	backup: {
		at: lastWhole(locals.world.db)?.startedAt ?? null,
		trouble: backupTrouble(locals.world)
	},
	sessions: openSessions(locals.world, sessionOf(cookies, locals.config))
});

export const actions: Actions = {
	business: (event) =>
		act(
			event,
			boxesOf(businessForm).extend({ part: box }),
			async ({ part, ...given }, world, posted) => {
				const current = String(posted.get('current') ?? '');
				await saveWatchedPart(world, part, given, current, guesserOf(event));
			}
		),
	/** From a document that is the first to need something of the owner's own. */
	missing: (event) =>
		act(event, boxesOf(businessForm).extend({ asks: box }), ({ asks, ...given }, world) => ({
			seller: giveMissing(world, asks, given)
		})),
	rate: (event) =>
		act(event, z.object({ from: box, rate: box }), ({ from, rate }, world) => {
			saveRate(world, from, rate);
		}),
	look: (event) =>
		act(event, z.object({ look: box }), ({ look }) => {
			const chosen = LOOKS.find((one) => one === look);
			if (!chosen) throw new FieldError({ look: 'Choose one of the three.' });
			setLook(event.cookies, event.locals.config, chosen);
			return { look: chosen };
		}),
	password: (event) =>
		act(event, z.object({}), async (_values, world, posted) => {
			const typed = (name: string) => String(posted.get(name) ?? '');
			await changeWatchedPassword(world, typed('current'), typed('password'), guesserOf(event));
			redirect(303, '/sign-in');
		}),
	endSession: (event) =>
		act(event, z.object({ name: box }), ({ name }, world) => {
			endSession(
				world,
				name ? { name } : { others: sessionOf(event.cookies, event.locals.config) ?? '' }
			);
		})
};
