// Money of a payer as a whole: one payment for several invoices, credit on the account, and its use.
import { must } from '../../actor';
import { and, eq, isNull, sql } from 'drizzle-orm';
import { displayPounds } from '../../../core/money/display';
import { shareOldestFirst } from '../../../core/settlement/sharing';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { customers, paymentReversals, payments } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, NotFoundError } from '../../../core/refusals';
import { mayDeduct, openOf } from '../ledger/openInvoices';
import { readAmount, readMoved, type MovedForm } from './form';
import { takeShared } from './taking';
import { queueReceipt } from './receipts';
import { stillToPay } from '../ledger/position';

export interface PayerPaymentForm extends MovedForm {
	/** Typed amounts by invoice; absent: shared out, the one due first, first. */
	shares?: Record<string, string> | undefined;
	/** What the payer says it withheld from which invoice. */
	withheld?: Record<string, string> | undefined;
	/** The payer gets a receipt by mail. */
	receipt?: boolean;
}

/**
 * Records one payment for any of a payer's invoices; what is over stays as credit on the account.
 * @returns the payment's id; the same key again gives the same payment.
 * @throws FieldError, NotFoundError
 */
export function recordForPayer(world: World, payerId: number, form: PayerPaymentForm): number {
	must('money');
	const { problems, amount, way } = readMoved(world, form, 'in');
	return writeAtOnce(world.db, (tx) => {
		const same = tx
			.select({ id: payments.id })
			.from(payments)
			.where(eq(payments.key, form.key))
			.get();
		if (same) return same.id;
		if (!tx.select().from(customers).where(eq(customers.id, payerId)).get())
			throw new NotFoundError('This payer');
		const shares = readShares(tx, openOf(tx, payerId), form, amount, problems);
		if (Object.keys(problems).length || !way) throw new FieldError(problems);
		const { id } = takeShared(tx, world, {
			key: form.key,
			payerId,
			date: form.date,
			amount,
			way,
			source: 'hand',
			reference: form.reference.trim(),
			fee: 0,
			who: 'you',
			shares
		});
		if (form.receipt) queueReceipt(tx, world, id);
		return id;
	});
}

function readShares(
	tx: Transaction,
	open: ReturnType<typeof openOf>,
	form: PayerPaymentForm,
	amount: number,
	problems: Record<string, string>
) {
	const deducting = mayDeduct(
		tx,
		open.map((one) => one.documentId)
	);
	const withheld = new Map<number, number>();
	for (const [id, typed] of Object.entries(form.withheld ?? {})) {
		if (typed.trim() === '') continue;
		const item = open.find((one) => one.documentId === Number(id));
		const pence = readAmount(typed, `withheld.${id}`, 'what was withheld', problems);
		if (!item) problems[`withheld.${id}`] = 'This invoice is not open any more.';
		else if (pence > 0 && !deducting.has(item.documentId))
			problems[`withheld.${id}`] = 'A household deducts nothing.';
		else if (pence > item.outstanding) problems[`withheld.${id}`] = 'More than is open on it.';
		if (pence > 0 || item?.deduction !== null) withheld.set(Number(id), pence);
	}
	const stated = (documentId: number) => withheld.get(documentId) ?? null;
	if (!form.shares) {
		const { shares } = shareOldestFirst(
			BigInt(amount),
			open.map((one) => ({
				documentId: one.documentId,
				dueDate: one.dueDate,
				toPay: BigInt(toPayWith(one, stated(one.documentId)))
			}))
		);
		return shares.map((one) => ({
			documentId: one.documentId,
			amount: Number(one.amount),
			withheld: stated(one.documentId)
		}));
	}
	const shares = [];
	let sum = 0;
	for (const [id, typed] of Object.entries(form.shares)) {
		if (typed.trim() === '') continue;
		const item = open.find((one) => one.documentId === Number(id));
		const part = readAmount(typed, `shares.${id}`, 'what is for this invoice', problems);
		const most = item ? toPayWith(item, stated(item.documentId)) : 0;
		if (!item) problems[`shares.${id}`] = 'This invoice is not open any more.';
		else if (part > most)
			problems[`shares.${id}`] = `At most ${displayPounds(most)}; the rest stays as credit.`;
		if (part > 0)
			shares.push({ documentId: Number(id), amount: part, withheld: stated(Number(id)) });
		sum += part;
	}
	if (sum > amount)
		problems.amount ??= `${displayPounds(sum)} is shared out, which is more than came in.`;
	return shares;
}

function toPayWith(item: Parameters<typeof stillToPay>[0], stated: number | null): number {
	return stated === null ? stillToPay(item) : Math.max(item.outstanding - stated, 0);
}

/** A payer's last payments, newest first, undone ones left out. */
export function paymentsOfPayer(db: Reader, payerId: number) {
	return db
		.select({
			id: payments.id,
			date: payments.date,
			amount: payments.amount,
			way: payments.way,
			reference: payments.reference
		})
		.from(payments)
		.leftJoin(paymentReversals, eq(paymentReversals.paymentId, payments.id))
		.where(and(eq(payments.payerId, payerId), isNull(paymentReversals.paymentId)))
		.orderBy(sql`${payments.date} desc`, sql`${payments.id} desc`)
		.limit(20)
		.all();
}
