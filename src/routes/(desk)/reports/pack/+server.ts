import { askedPeriod } from '$lib/server/reportPeriod';
import { accountantPack } from '$lib/server/services/reports/pack';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals: { world }, url }) => {
	const { period, basis } = askedPeriod(url, world.clock.today());
	return new Response(await accountantPack(world, period, basis), {
		headers: {
			'content-type': 'application/zip',
			'content-disposition': `attachment; filename="Books ${period.from} to ${period.to}.zip"`
		}
	});
};
