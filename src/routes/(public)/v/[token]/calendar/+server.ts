import { orNotFound } from '$lib/server/answers';
import { toldCalendar } from '$lib/server/services/telling/told';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals: { world }, params }) =>
	new Response(
		orNotFound(() => toldCalendar(world, params.token)),
		{
			headers: {
				'content-type': 'text/calendar; charset=utf-8',
				'content-disposition': 'attachment; filename="visit.ics"'
			}
		}
	);
