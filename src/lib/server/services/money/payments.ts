// Payments against an invoice, by hand or by card: recorded once, posted, settled, and undone with a trace.
import { and, eq, isNull } from 'drizzle-orm';
import { isPlainDate } from '../../../core/calendar/queries';
import type { PlainDate } from '../../../core/calendar/types';
import { parseMoney } from '../../../core/money/decimal';
import { displayPounds } from '../../../core/money/display';
import { explainTypedNumber, readTypedNumber } from '../../../core/money/typed';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { post, type Posting } from '../../db/journal';
import {
	allocations,
	bankLines,
	creditReturns,
	openItems,
	PAYMENT_WAYS,
	paymentReversals,
	payments,
	type Account,
	type PaymentWay
} from '../../db/schema';
import type { World } from '../../world';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { queueReceipt } from './receipts';
import { resettle, stillToPay, type SettledChange } from '../ledger/settlement';
import { note } from '../trail/documents';
import { giveUp } from './writeOffs';

export const WAY_ACCOUNT: Record<PaymentWay, Account> = {
	bank: 'bank',
	cheque: 'bank',
	cash: 'cash',
	card: 'cardClearing'
};
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

export interface TakenPayment {
	key: string;
	documentId: number;
	date: PlainDate;
	amount: number;
	withheld: number | null;
	way: PaymentWay;
	reference: string;
	/** What the card processor keeps of it. */
	fee: number;
	/** A card fee the payer bore on top of the amount: it stays in hand until a document bills it. */
	feeOnTop?: number;
	who: 'you' | 'customer';
}

/** Writes a payment for one invoice, its posting and the new position, in the caller's transaction. */
export function takePayment(tx: Transaction, world: World, taken: TakenPayment) {
	const { documentId, amount, withheld, ...payment } = taken;
	const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
	if (!item) throw new NotFoundError('This invoice');
	const { id, changes } = takeShared(tx, world, {
		...payment,
		amount: amount + (payment.feeOnTop ?? 0),
		payerId: item.payerId,
		shares: [{ documentId, amount, withheld }]
	});
	return { id, ...changes[0]! };
}

export interface SharedPayment extends Omit<TakenPayment, 'documentId' | 'withheld'> {
	payerId: number;
	/** What of it goes to which invoice; the rest is the payer's credit. */
	shares: { documentId: number; amount: number; withheld: number | null }[];
}

/** Writes a payment for any number of invoices of a payer, in the caller's transaction. */
export function takeShared(
	tx: Transaction,
	world: World,
	taken: SharedPayment
): { id: number; changes: SettledChange[] } {
	const { key, payerId, date, amount, way, reference, fee, feeOnTop = 0, who, shares } = taken;
	const now = world.clock.now();
	const over = amount - shares.reduce((sum, share) => sum + share.amount, 0);
	if (over < 0) throw new Error(`payment ${key} is shared out beyond its amount`);
	for (const { documentId, amount: part, withheld } of shares)
		takeUpAgain(tx, world, documentId, part + (withheld ?? 0), `${key}:${documentId}`);
	const { id } = tx
		.insert(payments)
		.values({ key, payerId, date, amount, way, reference, fee, feeOnTop, recordedAt: now })
		.returning({ id: payments.id })
		.get();
	const postings: Posting[] = [
		{ account: WAY_ACCOUNT[way], amount: amount - fee },
		{ account: 'cardFees', amount: fee },
		{ account: 'customerCredit', amount: -over, documentId: null, customerId: payerId }
	];
	const changes = shares.map((share) => {
		const { documentId } = share;
		tx.insert(allocations)
			.values({ paymentId: id, documentId, amount: share.amount, withheldStated: share.withheld })
			.run();
		const change = resettle(tx, documentId);
		const { customerId } = itemOf(tx, documentId);
		postings.push(
			{ account: 'cisWithheld', amount: change.withheldChange, documentId, customerId },
			{
				account: 'receivable',
				amount: -share.amount - change.withheldChange,
				documentId,
				customerId
			}
		);
		const withheld = change.withheldChange
			? `, ${displayPounds(change.withheldChange)} withheld`
			: '';
		note(tx, {
			documentId,
			at: now,
			who,
			what: 'paid',
			detail: `${displayPounds(share.amount)} by ${way}${withheld}`
		});
		return change;
	});
	post(tx, {
		key: `payment:${id}`,
		event: 'payment',
		date,
		documentId: shares.length === 1 ? shares[0]!.documentId : null,
		customerId: payerId,
		recordedAt: now,
		postings
	});
	return { id, changes };
}

function itemOf(tx: Transaction, documentId: number) {
	return tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get()!;
}

/** A debt that was given up and is paid after all is taken up again, as far as it is paid. */
function takeUpAgain(
	tx: Transaction,
	world: World,
	documentId: number,
	paid: number,
	key: string
): void {
	const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
	if (!item || item.writtenOff === 0) return;
	const amount = Math.min(item.writtenOff, Math.max(paid - item.outstanding, 0));
	if (amount > 0) giveUp(tx, world, item, -amount, 'Paid after all', key);
}

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
	writeAtOnce(world.db, (tx) => {
		const payment = tx.select().from(payments).where(eq(payments.id, paymentId)).get();
		if (!payment) throw new NotFoundError('This payment');
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
			{ account: WAY_ACCOUNT[payment.way], amount: -payment.amount },
			{ account: 'customerCredit', amount: over, documentId: null }
		];
		const byDocument = new Map<number, number>();
		for (const { documentId, amount } of shares)
			byDocument.set(documentId, (byDocument.get(documentId) ?? 0) + amount);
		let customerId = payment.payerId ?? 0;
		for (const [documentId, amount] of byDocument) {
			const { withheldChange } = resettle(tx, documentId);
			const item = itemOf(tx, documentId);
			customerId ||= item.payerId;
			postings.push(
				{
					account: 'cisWithheld',
					amount: withheldChange,
					documentId,
					customerId: item.customerId
				},
				{
					account: 'receivable',
					amount: amount - withheldChange,
					documentId,
					customerId: item.customerId
				}
			);
			note(tx, {
				documentId,
				at: now,
				who: 'you',
				what: 'paymentUndone',
				detail: displayPounds(amount)
			});
		}
		post(tx, {
			key: `undo-payment:${paymentId}`,
			event: 'reversal',
			date: world.clock.today(),
			documentId: byDocument.size === 1 ? [...byDocument.keys()][0]! : null,
			customerId,
			recordedAt: now,
			postings
		});
	});
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
			key: payments.key
		})
		.from(allocations)
		.innerJoin(payments, eq(payments.id, allocations.paymentId))
		.leftJoin(paymentReversals, eq(paymentReversals.paymentId, payments.id))
		.where(and(eq(allocations.documentId, documentId), isNull(paymentReversals.paymentId)))
		.orderBy(payments.date, payments.id)
		.all()
		.map(({ key, ...row }) => ({ ...row, byProcessor: key.startsWith('card:') }));
}
