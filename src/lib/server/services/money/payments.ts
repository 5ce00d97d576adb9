// Payments against an invoice, by hand or by card: recorded once, posted, settled, and undone with a trace.
import { must } from '../../actor';
import { and, eq, isNull } from 'drizzle-orm';
import { BOOKS } from '../../../core/money/currencies';
import { displayMoney } from '../../../core/money/display';
import { writeAtOnce } from '../../db/connection';
import { allocations, openItems, paymentReversals, payments } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { mayDeduct } from '../ledger/openInvoices';
import { queueReceipt } from './receipts';
import { stillToPay } from '../ledger/position';
import { readAmount, readMoved, type MovedForm } from './form';
import { takePayment } from './taking';

export interface PaymentForm extends MovedForm {
	/** What the payer says it withheld; empty: worked out. */
	withheld: string;
	/** Agrees to an amount above what is owed. */
	allowOverpaid: boolean;
	/** Of an invoice in other money: what reached the bank, in pounds. */
	reached?: string;
	/** The payer gets a receipt by mail. */
	receipt?: boolean;
}

/**
 * Records a payment typed by hand.
 * @returns the payment's id; the same key again gives the same payment.
 * @throws FieldError, NotFoundError
 */
export function recordPayment(world: World, documentId: number, form: PaymentForm): number {
	must('money');
	const { problems, amount, way } = readMoved(world, form, 'in');
	const withheld =
		form.withheld.trim() === ''
			? null
			: readAmount(form.withheld, 'withheld', 'what was withheld', problems);
	// A deduction that is told of later comes without money.
	if (amount === 0 && withheld && form.amount.trim() !== '') delete problems.amount;
	if (Object.keys(problems).length || !way) throw new FieldError(problems);

	return writeAtOnce(world.db, (tx) => {
		const same = tx
			.select({ id: payments.id })
			.from(payments)
			.where(eq(payments.key, form.key))
			.get();
		if (same) return same.id;
		const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
		if (!item) throw new NotFoundError('This invoice');
		if (withheld && !mayDeduct(tx, [documentId]).size)
			throw new FieldError({ withheld: 'A household deducts nothing.' });
		if (withheld !== null && withheld > item.total)
			throw new FieldError({ withheld: 'More than the whole invoice.' });
		if (withheld !== null && withheld > item.outstanding && !form.allowOverpaid)
			throw new FieldError({ withheld: 'More than is open on it.' });
		const { currency } = item;
		const sterling =
			currency === BOOKS
				? undefined
				: readAmount(form.reached ?? '', 'reached', 'what reached your bank in pounds', problems);
		if (sterling === 0) problems.reached ??= 'More than nothing, please.';
		if (sterling !== undefined && form.way === 'card')
			problems.way = 'A card is charged in pounds. Record it as it came in.';
		if (Object.keys(problems).length) throw new FieldError(problems);
		const owed = withheld === null ? stillToPay(item) : item.outstanding - withheld;
		if (amount > owed && !form.allowOverpaid) {
			throw new FieldError({
				amount: `That is ${displayMoney(amount - Math.max(owed, 0), currency)} more than they still have to pay. Tick the box below if it is right.`
			});
		}
		const { id } = takePayment(tx, world, {
			key: form.key,
			documentId,
			date: form.date,
			amount,
			withheld: withheld === 0 && item.deduction === null ? null : withheld,
			way,
			source: 'hand',
			reference: form.reference.trim(),
			fee: 0,
			...(sterling === undefined ? {} : { sterling }),
			who: 'you'
		});
		if (form.receipt) queueReceipt(tx, world, id);
		return id;
	});
}

/** The payments on an invoice, undone ones left out. */
export function paymentsOf(world: World, documentId: number) {
	return world.db
		.select({
			id: payments.id,
			date: payments.date,
			amount: allocations.amount,
			/** What all of it came to in pounds. Pence. */
			sterling: payments.amountSterling,
			way: payments.way,
			reference: payments.reference,
			fee: payments.fee,
			source: payments.source
		})
		.from(allocations)
		.innerJoin(payments, eq(payments.id, allocations.paymentId))
		.leftJoin(paymentReversals, eq(paymentReversals.paymentId, payments.id))
		.where(and(eq(allocations.documentId, documentId), isNull(paymentReversals.paymentId)))
		.orderBy(payments.date, payments.id)
		.all()
		.map(({ source, ...row }) => ({
			...row,
			amount: BigInt(row.amount),
			fee: BigInt(row.fee),
			byProcessor: source === 'checkout' && row.way === 'card'
		}));
}
