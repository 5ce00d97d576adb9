// Payments undone with a trace.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { BOOKS } from '../../../core/money/currencies';
import { displayMoney } from '../../../core/money/display';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { post, type Posting } from '../../db/journal';
import { allocations, bankLines, creditReturns, paymentReversals, payments } from '../../db/schema';
import type { World } from '../../world';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { resettle } from '../ledger/settlement';
import { note } from '../trail/documents';
import { WAY_ACCOUNT, itemOf } from './taking';
import { bringBack } from './moving';

/**
 * Undoes a payment: the row stays, a reversal and a reversing entry are added. The bank line it was recorded from is to be
 * looked at again, unless the money did come and went back.
 * @throws NotFoundError, RefusedError
 */
export function undoPayment(
	world: World,
	paymentId: number,
	reason: string,
	wentBack = false
): void {
	must('money');
	writeAtOnce(world.db, (tx) => undoInTransaction(tx, world, paymentId, reason, wentBack));
}

/** As `undoPayment`, in the caller's transaction. */
export function undoInTransaction(
	tx: Transaction,
	world: World,
	paymentId: number,
	reason: string,
	wentBack = false
): void {
	const payment = tx.select().from(payments).where(eq(payments.id, paymentId)).get();
	if (!payment) throw new NotFoundError('This payment');
	if (payment.source === 'opening')
		throw new RefusedError(
			'It was carried over from the books before. Take it back under Settings, Moving in.'
		);
	if (payment.way === 'card') throw new RefusedError('A card payment is given back by a refund.');
	const done = tx
		.select({ id: paymentReversals.paymentId })
		.from(paymentReversals)
		.where(eq(paymentReversals.paymentId, paymentId))
		.get();
	if (done) return;
	const returned = tx
		.select({ id: creditReturns.id })
		.from(creditReturns)
		.where(eq(creditReturns.paymentId, paymentId))
		.get();
	if (returned) throw new RefusedError('Some of it was given back already, so it did come in.');
	const now = world.clock.now();
	tx.insert(paymentReversals)
		.values({ paymentId, reason: reason.slice(0, 300), recordedAt: now })
		.run();
	if (!wentBack)
		tx.update(bankLines)
			.set({ state: 'open', paymentId: null, tied: false, proposal: null, decidedAt: null })
			.where(eq(bankLines.paymentId, paymentId))
			.run();
	const shares = tx.select().from(allocations).where(eq(allocations.paymentId, paymentId)).all();
	const over = payment.amount - shares.reduce((sum, share) => sum + share.amount, 0);
	const postings: Posting[] = [
		{
			account: WAY_ACCOUNT[payment.way],
			amount: -payment.amount,
			...(payment.currency === BOOKS ? {} : { sterling: -payment.amountSterling })
		},
		{ account: 'customerCredit', amount: over, documentId: null }
	];
	const byDocument = new Map<number, number>();
	for (const { documentId, amount } of shares)
		byDocument.set(documentId, (byDocument.get(documentId) ?? 0) + amount);
	let customerId = payment.payerId ?? 0;
	for (const [documentId, amount] of byDocument) {
		bringBack(tx, world, documentId, postings);
		const { postings: settled } = resettle(tx, world, documentId, { pending: postings });
		const item = itemOf(tx, documentId);
		customerId ||= item.payerId;
		postings.push(
			{ account: 'receivable', amount, documentId, customerId: item.customerId },
			...settled
		);
		note(tx, {
			documentId,
			at: now,
			who: 'you',
			what: 'paymentUndone',
			detail: displayMoney(amount, payment.currency)
		});
	}
	post(tx, {
		key: `undo-payment:${paymentId}`,
		event: 'reversal',
		date: world.clock.today(),
		documentId: byDocument.size === 1 ? [...byDocument.keys()][0]! : null,
		customerId,
		recordedAt: now,
		currency: payment.currency,
		postings
	});
}
