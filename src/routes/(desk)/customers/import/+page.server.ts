import { z } from 'zod';
import { act } from '$lib/server/answers';
import { FieldError } from '$lib/core/refusals';
import { importCustomers, previewCustomers } from '$lib/server/services/customers/file';
import type { Actions } from './$types';

async function bytesOf(posted: FormData): Promise<Uint8Array> {
	const file = posted.get('file');
	if (!(file instanceof File) || file.size === 0) throw new FieldError({ file: 'Choose a file.' });
	if (file.size > 25 * 1024 * 1024) throw new FieldError({ file: 'At most 25 MB can be read.' });
	return new Uint8Array(await file.arrayBuffer());
}

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
