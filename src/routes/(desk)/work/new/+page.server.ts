import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { act, box, rowId, tick } from '$lib/server/answers';
import { isRegistered } from '$lib/server/services/business/settings';
import { customerRecord } from '$lib/server/services/customers/parts';
import { beginJob } from '$lib/server/services/jobs/begin';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = ({ locals, url }) => {
	const id = Number(url.searchParams.get('customer')) || null;
	return {
		customer: customerRecord(locals.world.db, id),
		registered: isRegistered(locals.world)
	};
};

const newJob = z.object({
	key: box,
	title: box,
	customerId: rowId,
	siteId: rowId,
	workKindId: rowId,
	description: box,
	pricing: box,
	price: box,
	day: box,
	from: box,
	hourlyRate: box,
	enquiry: tick
});

export const actions: Actions = {
	default: (event) =>
		act(event, newJob, ({ key, enquiry, pricing, ...values }, world) => {
			const job = {
				...values,
				customerId: values.customerId || undefined,
				siteId: values.siteId || null,
				workKindId: values.workKindId || null,
				fixedPrice: pricing !== 'asDone'
			};
			redirect(303, `/work/${beginJob(world, key, job, enquiry ? 'enquiry' : 'booked')}`);
		})
};
