// Two customers that are the same person become one. What is issued stays as it was issued.
import { eq, sql } from 'drizzle-orm';
import { writeAtOnce } from '../../db/connection';
import { callNotes, customers, payerNames } from '../../db/schema';
import type { World } from '../../world';
import { unusedPayments } from '../ledger/inHand';
import { FieldError, NotFoundError } from '../../../core/refusals';

/** Tables whose rows follow the customer that is kept; documents and the journal keep what they were issued with. */
const MOVED = ['contacts', 'sites', 'jobs', 'repeats', 'saved_cards'] as const;

/**
 * Moves everything that is still alive from one customer to another and archives the first. Its issued documents stay
 * its own, with the name they were issued to; their open amounts are followed on the archived account.
 * @throws FieldError, NotFoundError
 */
export function mergeCustomers(world: World, fromId: number, intoId: number): void {
	if (fromId === intoId) throw new FieldError({ into: 'That is the same customer.' });
	writeAtOnce(world.db, (tx) => {
		const from = tx.select().from(customers).where(eq(customers.id, fromId)).get();
		const into = tx.select().from(customers).where(eq(customers.id, intoId)).get();
		if (!from || !into) throw new NotFoundError('This customer');
		const { open } = tx.get<{ open: number }>(
			sql`select coalesce(sum(outstanding - overpaid), 0) as open from open_items where customer_id = ${fromId} or payer_id = ${fromId}`
		);
		if (open !== 0 || unusedPayments(tx, fromId).length > 0)
			throw new FieldError({
				into: 'Something is still open on this account. Merge when it is settled, or merge the other one into it.'
			});
		for (const table of MOVED)
			tx.run(
				sql`update ${sql.identifier(table)} set customer_id = ${intoId} where customer_id = ${fromId}`
			);
		tx.update(callNotes).set({ customerId: intoId }).where(eq(callNotes.customerId, fromId)).run();
		tx.update(payerNames).set({ payerId: intoId }).where(eq(payerNames.payerId, fromId)).run();
		for (const column of ['bill_to_id'] as const)
			for (const table of ['customers', 'sites', 'jobs'])
				tx.run(
					sql`update ${sql.identifier(table)} set ${sql.identifier(column)} = ${intoId} where ${sql.identifier(column)} = ${fromId} and id <> ${intoId}`
				);
		tx.run(sql`update documents set customer_id = ${intoId}, customer_name = ${into.name},
			sheet = json_set(sheet, '$.customerId', ${intoId}) where customer_id = ${fromId} and state <> 'issued'`);
		tx.update(customers)
			.set({
				email: into.email || from.email,
				phone: into.phone || from.phone,
				address: into.address || from.address,
				privateNote: [into.privateNote, from.privateNote].filter(Boolean).join('\n'),
				labels: [...new Set([...into.labels, ...from.labels])],
				version: into.version + 1,
				updatedAt: world.clock.now()
			})
			.where(eq(customers.id, intoId))
			.run();
		tx.update(customers)
			.set({
				archivedAt: world.clock.now(),
				privateNote: `${from.privateNote}\nMerged into ${into.name}.`.trim()
			})
			.where(eq(customers.id, fromId))
			.run();
	});
}
