import { z } from 'zod';
import { act, fileOf } from '$lib/server/answers';
import { importCustomers, previewCustomers } from '$lib/server/services/customers/file';
import type { Actions } from './$types';

const bytesOf = async (posted: FormData) =>
	(await fileOf(posted, 25, 'Choose a file.', 'At most 25 MB can be read.')).bytes;

const shown = (rows: ReturnType<typeof previewCustomers>) => ({
	rows: rows.slice(0, 500),
	fresh: rows.filter((row) => row.outcome === 'new').length,
	same: rows.filter((row) => row.outcome === 'same').length,
	wrong: rows.filter((row) => row.outcome === 'wrong').length
});

export const actions: Actions = {
	preview: (event) =>
		act(event, z.object({}), async (_values, world, posted) => ({
			preview: shown(previewCustomers(world, await bytesOf(posted)))
		})),
	write: (event) =>
		act(event, z.object({}), async (_values, world, posted) => ({
			report: shown(importCustomers(world, await bytesOf(posted)))
		}))
};
