// The form of a cost, new or changed: what its boxes hold, and what its page needs to know.
import { z } from 'zod';
import { box, rowId, tick } from './answers';
import { FieldError } from '../core/refusals';
import { isRegistered } from './services/business/settings';
import { suppliersInUse } from './services/costs/suppliers';
import { addFile } from './services/files/files';
import { LARGEST_FILE } from './services/files/prepare';
import { jobsToChoose } from './services/jobs/list';
import type { World } from './world';

export const costForm = z.object({
	key: box,
	version: rowId,
	kind: box,
	supplier: box,
	number: box,
	description: box,
	date: box,
	paid: tick,
	paidOn: box,
	gross: box,
	vat: box,
	reclaim: tick,
	privateShare: box,
	category: box,
	centre: box,
	miles: box,
	jobId: rowId,
	chargeable: tick,
	markUp: box,
	another: tick,
	/** Another one follows. */
	next: tick
});

/** As the service takes it. */
export const typedCost = ({
	paid,
	paidOn,
	date,
	jobId,
	next: _next,
	...values
}: Omit<z.output<typeof costForm>, 'key' | 'version'>) => ({
	...values,
	date,
	// Paid at the till: on its own day.
	paidOn: paid ? paidOn || date : '',
	jobId: jobId || null
});

/** What the page of a cost offers. @param jobId the one it has, whatever became of it */
export const costPage = (world: World, jobId: number | null) => ({
	today: world.clock.today(),
	registered: isRegistered(world),
	suppliers: suppliersInUse(world.db).map(({ name, subcontractor, vatNumber, category }) => ({
		name,
		subcontractor,
		vatNumber,
		category
	})),
	jobs: jobsToChoose(world.db, jobId)
});

/** Keeps what was photographed. @throws FieldError */
export async function keepReceipts(world: World, id: number, posted: FormData): Promise<void> {
	for (const file of posted.getAll('file')) {
		if (!(file instanceof File) || file.size === 0) continue;
		if (file.size > LARGEST_FILE)
			throw new FieldError({ file: 'The cost is kept; its photo is larger than 25 MB.' });
		const bytes = Buffer.from(await file.arrayBuffer());
		await addFile(world, { to: 'purchase', id }, file.name, bytes);
	}
}
