// What a job cost: materials bought or used, hire, a helper’s day.
import { and, eq } from 'drizzle-orm';
import { z } from 'zod';
import { LINE_KINDS } from '../../../core/figures/types';
import { VAT_TREATMENTS } from '../../../core/regimes/types';
import { writeAtOnce } from '../../db/connection';
import { jobCosts } from '../../db/schema';
import { toBin } from '../business/bin';
import type { World } from '../../world';
import { parseForm } from '../business/fields';
import { mustGoTo } from './reach';
import { workChanged } from './takenParts';
import { NotFoundError } from '../../../core/refusals';
import { day, required, text, typedNumber, typedPercent } from '../business/fields';
import { loadJob } from './jobs';
import { refuseBilled } from './time';

const costForm = z.object({
	date: day.refine((value) => value !== '', 'Which day?'),
	kind: z.enum(LINE_KINDS).default('materials'),
	description: required(2000, 'What was it?'),
	/** Below zero: brought back to the supplier. */
	quantity: typedNumber('a quantity', { decimals: 4, negative: true }, true),
	unit: text(30),
	unitCost: typedNumber('what one cost', { decimals: 4 }, true),
	markUp: typedPercent('a mark-up', 1000),
	unitPrice: typedNumber('a price', { decimals: 4 }),
	vat: z.enum(VAT_TREATMENTS).default('standard'),
	vatReason: text(60),
	chargeable: z.boolean(),
	visitId: z.number().int().positive().nullable().default(null),
	itemId: z.number().int().positive().nullable().default(null)
});

/** A cost, new or changed. The same key again changes nothing. @throws FieldError, RefusedError */
export function saveCost(
	world: World,
	jobId: number,
	key: string,
	id: number | null,
	input: unknown
): number {
	mustGoTo(world.db, jobId);
	const form = parseForm(costForm, input);
	return writeAtOnce(world.db, (tx) => {
		loadJob(tx, jobId);
		const now = world.clock.now();
		if (id !== null) {
			refuseBilled(tx, 'cost', id);
			const row = tx
				.update(jobCosts)
				.set(form)
				.where(and(eq(jobCosts.id, id), eq(jobCosts.jobId, jobId)))
				.run();
			if (row.changes === 0) throw new NotFoundError('This cost');
			workChanged(tx, jobId, now);
			return id;
		}
		const same = tx.select({ id: jobCosts.id }).from(jobCosts).where(eq(jobCosts.key, key)).get();
		if (same) return same.id;
		const added = tx
			.insert(jobCosts)
			.values({ ...form, key, jobId })
			.returning({ id: jobCosts.id })
			.get().id;
		workChanged(tx, jobId, now);
		return added;
	});
}

export function removeCost(world: World, jobId: number, id: number): number | null {
	mustGoTo(world.db, jobId);
	return writeAtOnce(world.db, (tx) => {
		refuseBilled(tx, 'cost', id);
		const row = tx
			.delete(jobCosts)
			.where(and(eq(jobCosts.id, id), eq(jobCosts.jobId, jobId)))
			.returning()
			.get();
		workChanged(tx, jobId, world.clock.now());
		return row ? toBin(tx, world, 'jobCost', row) : null;
	});
}
