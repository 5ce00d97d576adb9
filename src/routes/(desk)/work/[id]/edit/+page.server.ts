import { idOf, orNotFound } from '$lib/server/answers';
import { customerNames } from '$lib/server/services/customers/customers';
import { jobPage } from '$lib/server/services/desk/jobPage';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, params }) => {
	const { registered, job, work, customer, sites, contract, billed } = orNotFound(() =>
		jobPage(locals.world, idOf(params.id))
	);
	return {
		registered,
		job,
		lines: work.lines,
		customer,
		sites,
		contract,
		billed,
		people: customerNames(locals.world)
	};
};
