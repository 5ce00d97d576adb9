import { z } from 'zod';
import { act, tick } from '$lib/server/answers';
import { brought, bytesOf } from '$lib/server/brought';
import { importJobs, previewJobs } from '$lib/server/services/jobs/file';
import type { Actions } from './$types';

const wishes = z.object({ addCustomers: tick });

export const actions: Actions = {
	preview: (event) =>
		act(event, wishes, async ({ addCustomers }, world, posted) => ({
			preview: brought(previewJobs(world, await bytesOf(posted), addCustomers))
		})),
	write: (event) =>
		act(event, wishes, async ({ addCustomers }, world, posted) => ({
			report: brought(importJobs(world, await bytesOf(posted), addCustomers))
		}))
};
