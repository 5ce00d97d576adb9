// Money given back: by card through the processor, or by hand.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { BOOKS } from '../../../core/money/currencies';
import { displayMoney } from '../../../core/money/display';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { post } from '../../db/journal';
import { creditReturns, openItems, payments, refunds } from '../../db/schema';
import type { CardEvent } from '../../gateways/card';
import type { World } from '../../world';
import { UnavailableError } from '../../gateways/asking';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { readAmount, readMoved, type MovedForm } from './form';
import { WAY_ACCOUNT } from './taking';
import { resettle } from '../ledger/settlement';
import { note } from '../trail/documents';
import { type CheckoutRow } from './checkouts';

/**
 * Gives card money back through the processor; the processor's event records it.
 * @throws FieldError; RefusedError where the processor cannot be reached
 */
export async function refundCard(
	world: World,
	paymentId: number,
	amount: number,
	key: string
): Promise<void> {
	must('money');
	const payment = world.db.select().from(payments).where(eq(payments.id, paymentId)).get();
	if (!payment || payment.way !== 'card') throw new NotFoundError('This card payment');
	const before = refundedSoFar(world.db, payment.reference);
	if (!Number.isSafeInteger(amount) || amount < 1)
		throw new FieldError({ amount: 'Give an amount above zero.' });
	if (amount > payment.amount - before)
		throw new FieldError({
			amount: `At most ${displayMoney(payment.amount - before)} of it is left to give back.`
		});
	try {
		await world.card.refund({ key, checkoutId: payment.reference, amount });
	} catch (error) {
		if (!(error instanceof UnavailableError)) throw error;
		throw new RefusedError(
			'The card service cannot be reached right now. Nothing was given back. Try again in a minute.'
		);
	}
}

export function refundedSoFar(db: Reader, checkoutId: string): number {
	const ofInvoices = db
		.select({ amount: refunds.amount })
		.from(refunds)
		.where(eq(refunds.reference, checkoutId))
		.all();
	const ofCredit = db
		.select({ amount: creditReturns.amount })
		.from(creditReturns)
		.where(eq(creditReturns.reference, checkoutId))
		.all();
	return [...ofInvoices, ...ofCredit].reduce((total, row) => total + row.amount, 0);
}

/** How a refund is named in the books: by the processor's own name for it, so that news of it under another id is the same refund. */
export const refundName = (event: CardEvent): string => `card-refund:${event.refund ?? event.id}`;

export function refunded(
	tx: Transaction,
	world: World,
	checkout: CheckoutRow,
	event: CardEvent
): void {
	giveBack(tx, world, {
		key: refundName(event),
		documentId: checkout.documentId!,
		date: world.clock.today(),
		amount: event.amount,
		way: 'card',
		reference: event.checkout
	});
}

/**
 * Records money given back by hand for an invoice. The same key again changes nothing.
 * @throws FieldError, NotFoundError
 */
export function refundByHand(
	world: World,
	documentId: number,
	form: MovedForm & { reached?: string }
): void {
	must('money');
	const { problems, amount, way } = readMoved(world, form, 'back');
	writeAtOnce(world.db, (tx) => {
		const key = `hand-refund:${form.key}`;
		if (tx.select().from(refunds).where(eq(refunds.key, key)).get()) return;
		const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
		if (!item) throw new NotFoundError('This invoice');
		if (amount > item.cash)
			problems.amount ??= `At most ${displayMoney(item.cash, item.currency)} came in for it.`;
		const amountSterling =
			item.currency === BOOKS
				? null
				: readAmount(form.reached ?? '', 'reached', 'what left your bank in pounds', problems);
		if (amountSterling === 0) problems.reached ??= 'More than nothing, please.';
		if (Object.keys(problems).length || !way) throw new FieldError(problems);
		const { date, reference } = form;
		giveBack(tx, world, {
			key,
			documentId,
			date,
			amount,
			amountSterling,
			way,
			reference: reference.trim()
		});
	});
}

/** Writes a refund, its posting and the new position, in the caller's transaction. */
function giveBack(
	tx: Transaction,
	world: World,
	given: Omit<typeof refunds.$inferInsert, 'id' | 'recordedAt'>
): void {
	const { documentId, date, amount, way } = given;
	const now = world.clock.now();
	const { id } = tx
		.insert(refunds)
		.values({ ...given, recordedAt: now })
		.returning({ id: refunds.id })
		.get();
	const { postings } = resettle(tx, world, documentId);
	const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get()!;
	post(tx, {
		key: `refund:${id}`,
		event: 'refund',
		date,
		documentId,
		customerId: item.customerId,
		recordedAt: now,
		currency: item.currency,
		postings: [
			{
				account: WAY_ACCOUNT[way],
				amount: -amount,
				...(given.amountSterling ? { sterling: -given.amountSterling } : {})
			},
			{ account: 'receivable', amount, documentId, customerId: item.customerId },
			...postings
		]
	});
	note(tx, {
		documentId,
		at: now,
		who: 'you',
		what: 'refunded',
		detail: displayMoney(amount, item.currency)
	});
}
