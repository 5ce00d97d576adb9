// Debts given up, with a reason; taken up again where that was a mistake, or where they are paid after all.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { displayMoney } from '../../../core/money/display';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { post } from '../../db/journal';
import { openItems, writeOffs } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { resettle } from '../ledger/settlement';
import { note } from '../trail/documents';

type Item = typeof openItems.$inferSelect;

/** Books an amount of an invoice as lost (below zero: as owed again), in the caller's transaction. Pence. */
export function bookLoss(
	tx: Transaction,
	world: World,
	item: Item,
	amount: number,
	reason: string,
	key: string
): void {
	const { documentId, customerId } = item;
	const at = world.clock.now();
	const date = world.clock.today();
	tx.insert(writeOffs).values({ key, documentId, date, amount, reason, recordedAt: at }).run();
	const { postings } = resettle(tx, world, documentId);
	post(tx, {
		key: `writeOff:${key}`,
		event: 'writeOff',
		date,
		documentId,
		customerId,
		recordedAt: at,
		currency: item.currency,
		postings: [
			{ account: 'badDebts', amount, documentId, customerId },
			{ account: 'receivable', amount: -amount, documentId, customerId },
			...postings
		]
	});
	note(tx, {
		documentId,
		at,
		who: 'you',
		what: amount > 0 ? 'writtenOff' : 'takenUpAgain',
		detail: `${displayMoney(Math.abs(amount), item.currency)}: ${reason}`
	});
}

/**
 * Gives up what is still outstanding on an invoice. The same key again changes nothing.
 * @throws FieldError without a reason, RefusedError where nothing is open
 */
export function writeOff(world: World, documentId: number, reason: string, key: string): void {
	must('money');
	const words = reason.trim();
	if (words === '') throw new FieldError({ reason: 'Say why, for the accountant.' });
	if (words.length > 300) throw new FieldError({ reason: 'At most 300 characters.' });
	writeAtOnce(world.db, (tx) => {
		const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
		if (!item) throw new NotFoundError('This invoice');
		if (tx.select().from(writeOffs).where(eq(writeOffs.key, key)).get()) return;
		if (item.outstanding === 0) throw new RefusedError('Nothing is open on this invoice.');
		bookLoss(tx, world, item, item.outstanding, words, key);
	});
}

/** Takes up again what was given up by mistake. */
export function undoWriteOff(world: World, documentId: number, key: string): void {
	must('money');
	writeAtOnce(world.db, (tx) => {
		const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
		if (!item) throw new NotFoundError('This invoice');
		if (item.writtenOff === 0 || tx.select().from(writeOffs).where(eq(writeOffs.key, key)).get())
			return;
		bookLoss(tx, world, item, -item.writtenOff, 'Written off by mistake', key);
	});
}
