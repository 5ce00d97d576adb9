import { idOf, orNotFound } from '$lib/server/answers';
import { jobPage } from '$lib/server/services/desk/jobPage';
import { agreedSheet } from '$lib/server/services/jobs/jobs';
import { sheetContext } from '$lib/server/services/invoices/context';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals: { world }, params }) => {
	const { registered, job, work, customer, sites, contract, billed, today } = orNotFound(() =>
		jobPage(world, idOf(params.id))
	);
	const sheet = agreedSheet(job, work.lines);
	return {
		registered,
		job,
		lines: work.lines,
		sheet,
		parties: sheetContext(world.db, sheet, today),
		customer,
		sites,
		contract,
		billed,
		today
	};
};
