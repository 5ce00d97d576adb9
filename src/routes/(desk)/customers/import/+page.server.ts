import { z } from 'zod';
import { contactsWrittenAs } from '$lib/core/formats/contacts';
import { act } from '$lib/server/answers';
import { brought, bytesOf } from '$lib/server/brought';
import { importCustomers, previewCustomers } from '$lib/server/services/customers/file';
import type { Actions } from './$types';

export const actions: Actions = {
	preview: (event) =>
		act(event, z.object({}), async (_values, world, posted) => {
			const bytes = await bytesOf(posted);
			const preview = brought(previewCustomers(world, bytes));
			const { format, encoding } = contactsWrittenAs(bytes);
			const readAs = `Read as ${format === 'vcard' ? 'vCards' : 'CSV'}, written in ${encoding}.`;
			return { preview: { ...preview, readAs } };
		}),
	write: (event) =>
		act(event, z.object({}), async (_values, world, posted) => ({
			report: brought(importCustomers(world, await bytesOf(posted)))
		}))
};
