import { z } from 'zod';
import { answer, readBody } from '$lib/server/answers';
import { FieldError } from '$lib/core/refusals';
import { deliverSoon } from '$lib/server/clockwork/delivery';
import { TOLD_KINDS } from '$lib/server/db/schema';
import {
	bookJob,
	placeVisit,
	repeatVisit,
	saveVisitDetail
} from '$lib/server/services/diary/placing';
import { callOff, chargeJourney } from '$lib/server/services/diary/calledOff';
import { removeVisit } from '$lib/server/services/jobs/visits';
import { proposeTelling, setVisitNews, tellCustomer } from '$lib/server/services/telling/telling';
import type { RequestHandler } from './$types';

const id = z.number().int().positive();
const doing = z.discriminatedUnion('action', [
	z.looseObject({ action: z.literal('book'), job: id }),
	z.looseObject({ action: z.literal('detail'), visit: id }),
	z.looseObject({ action: z.literal('repeat'), visit: id }),
	z.looseObject({ action: z.literal('callOff'), visit: id }),
	z.looseObject({ action: z.literal('remove'), visit: id, job: id }),
	z.looseObject({ action: z.literal('journey'), visit: id }),
	z.looseObject({ action: z.literal('quiet'), visit: id }),
	z.looseObject({ action: z.literal('tell'), visit: id })
]);

/** What would be said to the customer of a visit. */
export const GET: RequestHandler = ({ locals: { world }, url }) =>
	answer(() => {
		const kind = z.enum(TOLD_KINDS).catch('booked').parse(url.searchParams.get('kind'));
		const minutes = Number(url.searchParams.get('minutes')) || 20;
		return proposeTelling(world, Number(url.searchParams.get('visit')), kind, minutes);
	});

/** Puts a visit somewhere else. */
export const PUT: RequestHandler = ({ request, locals: { world } }) =>
	answer(async () => {
		const { visit, ...place } = await readBody(request);
		return placeVisit(world, Number(visit), place);
	});

export const POST: RequestHandler = ({ request, locals: { world } }) =>
	answer(async () => {
		const read = doing.safeParse(await readBody(request));
		if (!read.success) throw new FieldError({ '': 'This could not be read.' });
		const { data } = read;
		switch (data.action) {
			case 'book':
				return { visit: bookJob(world, data.job, data) };
			case 'detail':
				return saveVisitDetail(world, data.visit, data);
			case 'repeat':
				return { count: repeatVisit(world, data.visit, data) };
			case 'callOff':
				return callOff(world, data.visit, data);
			case 'journey':
				return { job: chargeJourney(world, data.visit) };
			case 'quiet':
				return setVisitNews(world, data.visit, data);
			case 'remove':
				return { bin: removeVisit(world, data.job, data.visit) };
			case 'tell': {
				const sent = tellCustomer(world, data.visit, data);
				deliverSoon(world);
				return { sent };
			}
		}
	});
