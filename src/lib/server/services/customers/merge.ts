// Two customers that are the same person become one. What is issued stays as it was issued.
import { must } from '../../actor';
import { eq, sql } from 'drizzle-orm';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { customers } from '../../db/schema';
import type { World } from '../../world';
import { unusedPayments } from '../ledger/inHand';

/** Every column that names a customer and follows the one that is kept. */
export const FOLLOWS: readonly (readonly [table: string, column: string])[] = [
	['contacts', 'customer_id'],
	['sites', 'customer_id'],
	['sites', 'bill_to_id'],
	['customers', 'bill_to_id'],
	['jobs', 'customer_id'],
	['jobs', 'bill_to_id'],
	['repeats', 'customer_id'],
	['saved_cards', 'customer_id'],
	['breathing_spaces', 'customer_id'],
	['call_notes', 'customer_id'],
	['payer_names', 'payer_id'],
	['bill_run_steps', 'customer_id'],
	['quotes', 'customer_id'],
	['enquiries', 'customer_id'],
	['deposit_requests', 'payer_id']
];

/** One row a customer: it follows where the customer that is kept has none of its own. */
export const FOLLOWS_WHERE_FREE: readonly (readonly [table: string, column: string])[] = [
	['late_terms', 'customer_id'],
	['customer_chasing', 'customer_id'],
	// The same file of both is there once.
	['files', 'customer_id']
];

/** What was issued, posted, paid, said or sent stays with whom it was: it is history, or nothing of it is open. */
export const STAYS: readonly (readonly [table: string, column: string])[] = [
	['tax_standings', 'customer_id'],
	['open_items', 'customer_id'],
	['open_items', 'payer_id'],
	['journal_lines', 'customer_id'],
	['payments', 'payer_id'],
	['checkouts', 'payer_id'],
	['statements', 'payer_id'],
	['chase_wordings', 'payer_id'],
	['chase_messages', 'payer_id'],
	['deduction_statements', 'contractor_id'],
	['removals', 'customer_id'],
	['text_replies', 'customer_id'],
	['card_codes', 'customer_id']
];

/** Sheets that are still to become documents, and where a customer stands in them. */
export const SHEETS: readonly (readonly [table: string, where: string])[] = [
	['documents', "state <> 'issued'"],
	['repeats', '1'],
	['repeat_changes', '1'],
	['bill_run_steps', "state = 'waiting'"],
	['starting_points', '1'],
	['quotes', "state in ('draft', 'sent')"]
];

/**
 * Moves everything that is still alive from one customer to another and archives the first. Its issued documents stay
 * its own, with the name they were issued to; their open amounts are followed on the archived account.
 * @throws FieldError, NotFoundError
 */
export function mergeCustomers(world: World, fromId: number, intoId: number): void {
	must('work');
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
		moveRows(tx, fromId, intoId);
		moveSheets(tx, fromId, intoId, into.name);
		tx.update(customers)
			.set({
				email: into.email || from.email,
				phone: into.phone || from.phone,
				address: into.address || from.address,
				salutation: into.salutation || from.salutation,
				inTrade: into.inTrade || from.inTrade,
				currency: into.currency === 'GBP' ? from.currency : into.currency,
				letterheadId: into.letterheadId ?? from.letterheadId,
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

// Tables by name: the builder has no way to say a table that is only known from a list.
function moveRows(tx: Transaction, fromId: number, intoId: number): void {
	for (const [table, column] of FOLLOWS) {
		const target = sql.identifier(column);
		// Nobody gets its own bill-to.
		const own = table === 'customers' ? sql`and id <> ${intoId}` : sql``;
		tx.run(
			sql`update ${sql.identifier(table)} set ${target} = ${intoId} where ${target} = ${fromId} ${own}`
		);
	}
	for (const [table, column] of FOLLOWS_WHERE_FREE) {
		const target = sql.identifier(column);
		tx.run(
			sql`update or ignore ${sql.identifier(table)} set ${target} = ${intoId} where ${target} = ${fromId}`
		);
	}
}

function moveSheets(tx: Transaction, fromId: number, intoId: number, name: string): void {
	for (const [table, where] of SHEETS)
		for (const path of ['$.customerId', '$.billToId'])
			tx.run(sql`update ${sql.identifier(table)} set sheet = json_set(sheet, ${path}, ${intoId})
				where json_extract(sheet, ${path}) = ${fromId} and ${sql.raw(where)}`);
	tx.run(
		sql`update documents set customer_id = ${intoId}, customer_name = ${name} where customer_id = ${fromId} and state <> 'issued'`
	);
}
