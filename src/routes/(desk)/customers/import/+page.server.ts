import { z } from 'zod';
import { act } from '$lib/server/answers';
import { brought, bytesOf } from '$lib/server/brought';
import { importCustomers, previewCustomers } from '$lib/server/services/customers/file';
import type { Actions } from './$types';

export const actions: Actions = {
	preview: (event) =>
		act(event, z.object({}), async (_values, world, posted) => ({
			preview: brought(previewCustomers(world, await bytesOf(posted)))
		})),
	write: (event) =>
		act(event, z.object({}), async (_values, world, posted) => ({
			report: brought(importCustomers(world, await bytesOf(posted)))
		}))
};
