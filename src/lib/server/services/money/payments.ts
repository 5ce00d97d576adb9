// Payments against an invoice, by hand or by card: recorded once, posted, settled, and undone with a trace.
import { and, eq, isNull } from 'drizzle-orm';
import { isPlainDate } from '../../../core/calendar/queries';
import { parseMoney } from '../../../core/money/decimal';
import { displayPounds } from '../../../core/money/display';
import { explainTypedNumber, readTypedNumber } from '../../../core/money/typed';
import { writeAtOnce } from '../../db/connection';
import { allocations, openItems, PAYMENT_WAYS, paymentReversals, payments } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { queueReceipt } from './receipts';
import { stillToPay } from '../../../core/settlement/position';
import { takePayment } from './taking';
export const MONEY = { decimals: 2, digits: 11 };

export interface PaymentForm {
	/** Names the press of the button. */
	key: string;
	date: string;
	amount: string;
	/** What the payer says it withheld; empty: worked out. */
	withheld: string;
	way: string;
	reference: string;
	/** Agrees to an amount above what is owed. */
	allowOverpaid: boolean;
	/** The payer gets a receipt by mail. */
	receipt?: boolean;
}

/**
 * Records a payment typed by hand.
 * @returns the payment's id; the same key again gives the same payment.
 * @throws FieldError, NotFoundError
 */
export function recordPayment(world: World, documentId: number, form: PaymentForm): number {
	const today = world.clock.today();
	const problems: Record<string, string> = {};
	const amount = readAmount(form.amount, 'amount', 'what came in', problems);
	const withheld =
		form.withheld.trim() === ''
			? null
			: readAmount(form.withheld, 'withheld', 'what was withheld', problems);
	if (!isPlainDate(form.date)) problems.date = 'Give the day it came in.';
	else if (form.date > today) problems.date = 'That day has not come yet.';
	const way = PAYMENT_WAYS.find((one) => one === form.way);
	if (!way) problems.way = 'Choose how it was paid.';
	if (form.reference.length > 200) problems.reference = 'At most 200 characters.';
	if (amount === 0) problems.amount ??= 'More than nothing, please.';
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
		if (withheld !== null && item.deduction === null)
			throw new FieldError({ withheld: 'No deduction is expected on this invoice.' });
		if (withheld !== null && withheld > item.total)
			throw new FieldError({ withheld: 'More than the whole invoice.' });
		const owed = withheld === null ? stillToPay(item) : item.outstanding - withheld;
		if (amount > owed && !form.allowOverpaid) {
			throw new FieldError({
				amount: `That is ${displayPounds(amount - Math.max(owed, 0))} more than they still have to pay. Tick the box below if it is right.`
			});
		}
		const { id } = takePayment(tx, world, {
			key: form.key,
			documentId,
			date: form.date,
			amount,
			withheld,
			way,
			source: 'hand',
			reference: form.reference.trim(),
			fee: 0,
			who: 'you'
		});
		if (form.receipt) queueReceipt(tx, world, id);
		return id;
	});
}

/** Pence out of what was typed; a problem at its field where it is no amount. */
export function readAmount(
	typed: string,
	field: string,
	what: string,
	problems: Record<string, string>
): number {
	const result = readTypedNumber(typed, MONEY);
	if (result.ok) return Number(parseMoney(result.text) ?? 0n);
	problems[field] = explainTypedNumber(result, what, MONEY);
	return 0;
}

export interface GiveBackForm {
	/** Names the press of the button. */
	key: string;
	date: string;
	amount: string;
	way: string;
	reference: string;
}

/** What was typed about money given back by hand. The caller throws the problems, with its own. */
export function readGivenBack(world: World, form: GiveBackForm) {
	const problems: Record<string, string> = {};
	const amount = readAmount(form.amount, 'amount', 'what you gave back', problems);
	if (amount === 0) problems.amount ??= 'More than nothing, please.';
	if (!isPlainDate(form.date) || form.date > world.clock.today())
		problems.date = 'Give the day you gave it back.';
	const way = PAYMENT_WAYS.find((one) => one === form.way && one !== 'card');
	if (!way) problems.way = 'Choose how you gave it back.';
	if (form.reference.length > 200) problems.reference = 'At most 200 characters.';
	return { problems, amount, way };
}

/** The payments on an invoice, undone ones left out. */
export function paymentsOf(world: World, documentId: number) {
	return world.db
		.select({
			id: payments.id,
			date: payments.date,
			amount: allocations.amount,
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
			byProcessor: source === 'checkout' && row.way === 'card'
		}));
}
