import { readCursor } from '$lib/core/paging';
import { STANDINGS } from '$lib/core/jobs/types';
import { runningClock } from '$lib/server/services/jobs/time';
import { visitsOn } from '$lib/server/services/jobs/visits';
import { jobCounts, jobLabels, listJobs } from '$lib/server/services/jobs/list';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const { world } = locals;
	const given = url.searchParams;
	const state = STANDINGS.find((one) => one === given.get('state'));
	const typed = (given.get('q') ?? '').slice(0, 200);
	const label = given.get('label') ?? '';
	return {
		typed,
		state: state ?? '',
		label,
		labels: jobLabels(world.db),
		...listJobs(world, {
			typed,
			cursor: readCursor(given),
			...(state ? { standing: state } : {}),
			...(label ? { label } : {})
		}),
		counts: jobCounts(world.db),
		visits: visitsOn(world, world.clock.today()),
		clock: runningClock(world)
	};
};
