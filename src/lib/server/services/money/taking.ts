// Payments taken: written, posted and settled in one transaction, however they came.
import { eq } from 'drizzle-orm';
import type { PlainDate } from '../../../core/calendar/types';
import { BOOKS, type Currency } from '../../../core/money/currencies';
import { displayMoney } from '../../../core/money/display';
import { type Transaction } from '../../db/connection';
import { post, type Posting } from '../../db/journal';
import {
	allocations,
	openItems,
	payments,
	type Account,
	type PaymentSource,
	type PaymentWay
} from '../../db/schema';
import type { World } from '../../world';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import { resettle, type SettledChange } from '../ledger/settlement';
import { note } from '../trail/documents';

export const WAY_ACCOUNT: Record<PaymentWay, Account> = {
	bank: 'bank',
	cheque: 'bank',
	cash: 'cash',
	card: 'cardClearing'
};

/** Where money went: what other books had before stands there. */
export const accountOf = ({ way, source }: { way: PaymentWay; source: PaymentSource }): Account =>
	source === 'opening' ? 'opening' : WAY_ACCOUNT[way];

export interface TakenPayment {
	key: string;
	documentId: number;
	date: PlainDate;
	amount: number;
	withheld: number | null;
	way: PaymentWay;
	source: PaymentSource;
	reference: string;
	/** What the card processor keeps of it. */
	fee: number;
	/** In other money: what it came to in pounds, in pence. Whole, without a fee and on an invoice. */
	sterling?: number;
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
	const {
		key,
		payerId,
		date,
		amount,
		way,
		source,
		reference,
		fee,
		feeOnTop = 0,
		who,
		shares,
		sterling = amount
	} = taken;
	const now = world.clock.now();
	const over = amount - shares.reduce((sum, share) => sum + share.amount, 0);
	if (over < 0) throw new Error(`payment ${key} is shared out beyond its amount`);
	const currency = oneMoney(tx, shares);
	if (currency !== BOOKS && (over > 0 || fee > 0 || taken.sterling === undefined))
		throw new Error(`payment ${key} in ${currency} is not whole`);
	const reached = currency === BOOKS ? '' : ` (${displayMoney(sterling)})`;
	const { id } = tx
		.insert(payments)
		.values({
			key,
			payerId,
			date,
			amount,
			currency,
			amountSterling: sterling,
			way,
			source,
			reference,
			fee,
			feeOnTop,
			recordedAt: now
		})
		.returning({ id: payments.id })
		.get();
	const postings: Posting[] = [
		{
			account: accountOf(taken),
			amount: amount - fee,
			...(currency === BOOKS ? {} : { sterling })
		},
		{ account: 'cardFees', amount: fee },
		{ account: 'customerCredit', amount: -over, documentId: null, customerId: payerId }
	];
	const changes = shares.map((share) => {
		const { documentId } = share;
		tx.insert(allocations)
			.values({ paymentId: id, documentId, amount: share.amount, withheldStated: share.withheld })
			.run();
		const change = resettle(tx, world, documentId, { pending: postings });
		const { customerId } = itemOf(tx, documentId);
		postings.push(
			{ account: 'receivable', amount: -share.amount, documentId, customerId },
			...change.postings
		);
		const withheld = change.withheldChange
			? `, ${displayMoney(change.withheldChange, currency)} withheld`
			: '';
		note(tx, {
			documentId,
			at: now,
			who,
			what: 'paid',
			detail: `${displayMoney(share.amount, currency)}${reached} ${source === 'opening' ? 'in the books before' : `by ${way}`}${withheld}`
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
		currency,
		postings
	});
	return { id, changes };
}

/** The money all of these invoices are in. @throws RefusedError where they are not in one */
function oneMoney(tx: Transaction, shares: SharedPayment['shares']): Currency {
	const all = new Set(shares.map(({ documentId }) => itemOf(tx, documentId).currency));
	if (all.size > 1)
		throw new RefusedError('These invoices are in different money: record a payment for each.');
	return [...all][0] ?? BOOKS;
}

export function itemOf(tx: Transaction, documentId: number) {
	return tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get()!;
}
