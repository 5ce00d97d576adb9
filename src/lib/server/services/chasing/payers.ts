// Where a payer is chased otherwise than the rest: another plan, none, or paused.
import { must } from '../../actor';
import { and, eq, isNull } from 'drizzle-orm';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Reader } from '../../db/connection';
import { chasePlans, customerChasing, customers } from '../../db/schema';
import type { World } from '../../world';
import { LIKE_ALL, loadPlan, type PayerChasing } from './plans';

export function payerChasing(db: Reader, payerId: number): PayerChasing {
	const row = db
		.select({
			// A plan that is archived is nobody's while it is.
			planId: chasePlans.id,
			never: customerChasing.never,
			onHold: customerChasing.onHold,
			note: customerChasing.note
		})
		.from(customerChasing)
		.leftJoin(
			chasePlans,
			and(eq(chasePlans.id, customerChasing.planId), isNull(chasePlans.archivedAt))
		)
		.where(eq(customerChasing.customerId, payerId))
		.get();
	return row ?? LIKE_ALL;
}

/** How one payer is chased. @throws FieldError, NotFoundError */
export function savePayerChasing(world: World, payerId: number, given: PayerChasing): void {
	must('bill');
	const note = given.note.trim();
	if (note.length > 300) throw new FieldError({ note: 'At most 300 characters.' });
	writeAtOnce(world.db, (tx) => {
		if (!tx.select().from(customers).where(eq(customers.id, payerId)).get())
			throw new NotFoundError('This payer');
		if (given.planId !== null) loadPlan(tx, given.planId);
		const { planId, never, onHold } = given;
		const values = { planId, never, onHold, note };
		tx.insert(customerChasing)
			.values({ customerId: payerId, ...values })
			.onConflictDoUpdate({ target: customerChasing.customerId, set: values })
			.run();
	});
}
