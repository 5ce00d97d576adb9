import { z } from 'zod';
import { act, box, rowId, tick } from '$lib/server/answers';
import { pageOf, readCursor } from '$lib/core/paging';
import { markPosted, sentReminders } from '$lib/server/services/chasing/messages';
import { loadChaseSettings, saveChaseSettings } from '$lib/server/services/chasing/settings';
import { skipMessage } from '$lib/server/services/chasing/chasing';
import { chaseDayPage } from '$lib/server/services/chasing/day';
import { type Why } from '$lib/server/services/chasing/compose';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import { sendAgain, sendTextAgain } from '$lib/server/services/messages/outbox';
import type { Actions, PageServerLoad } from './$types';

const PER_PAGE = 30;
const clock = (minutes: number) =>
	`${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

export const load: PageServerLoad = ({ locals, url }) => {
	const { db } = locals.world;
	const cursor = readCursor(url.searchParams);
	const { hours, ...rest } = loadChaseSettings(db);
	const read = sentReminders(db, { limit: PER_PAGE + 1, cursor });
	const { rows: sent, ...places } = pageOf(read, PER_PAGE, cursor, ({ id }) => ({ key: '', id }));
	return {
		...chaseDayPage(locals.world),
		settings: { ...rest, from: clock(hours.from), to: clock(hours.to) },
		sent,
		...places
	};
};

const message = { message: rowId };

export const actions: Actions = {
	settings: (event) =>
		act(
			event,
			z.object({ on: tick, from: box, to: box, quietHours: box, gapDays: box }),
			(values, world) => {
				saveChaseSettings(world, values);
			}
		),
	skip: (event) =>
		act(
			event,
			z.object({ payer: rowId, why: z.string() as z.ZodType<Why>, mark: box }),
			({ payer, why, mark }, world) => {
				skipMessage(world, payer, { why, mark });
				return { skipped: true };
			}
		),
	posted: (event) =>
		act(event, z.object(message), ({ message }, world) => {
			markPosted(world, message);
		}),
	again: (event) =>
		act(event, z.object({ ...message, mail: rowId }), ({ message, mail }, world) => {
			if (mail) sendAgain(world, mail);
			else sendTextAgain(world, message);
			deliverSoon(world);
		})
};
