// Money of a payer as a whole: one payment for several invoices, credit on the account, and its use.
import { and, eq, isNull, sql } from 'drizzle-orm';
import { displayPounds } from '../../../core/money/display';
import { shareOldestFirst } from '../../../core/settlement/sharing';
import { writeAtOnce, type Transaction, type Reader } from '../../db/connection';
import { post, type Posting } from '../../db/journal';
import {
	allocations,
	creditReturns,
	customers,
	openItems,
	paymentReversals,
	payments,
	transfers
} from '../../db/schema';
import type { World } from '../../world';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { openOf } from '../ledger/openInvoices';
import { readAmount, readMoved, type MovedForm } from './form';
import { takeShared, WAY_ACCOUNT } from './taking';
import { queueReceipt } from './receipts';
import { resettle } from '../ledger/settlement';
import { stillToPay } from '../../../core/settlement/position';
import { note } from '../trail/documents';
import { type Credit, unusedPayments, inHandOf } from '../ledger/inHand';
import { documents } from '../../db/schema';
import { customerRecord } from '../customers/parts';

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
		const shares = readShares(openOf(tx, payerId), form, amount, problems);
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
	open: ReturnType<typeof openOf>,
	form: PayerPaymentForm,
	amount: number,
	problems: Record<string, string>
) {
	const withheld = new Map<number, number>();
	for (const [id, typed] of Object.entries(form.withheld ?? {})) {
		if (typed.trim() === '') continue;
		const item = open.find((one) => one.documentId === Number(id));
		const pence = readAmount(typed, `withheld.${id}`, 'what was withheld', problems);
		if (!item) problems[`withheld.${id}`] = 'This invoice is not open any more.';
		else if (item.deduction === null)
			problems[`withheld.${id}`] = 'No deduction is expected on this invoice.';
		else if (pence > item.outstanding) problems[`withheld.${id}`] = 'More than is open on it.';
		withheld.set(Number(id), pence);
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

/**
 * Uses a payer's credit, the earliest first, for an invoice: all that fits. The same key again changes nothing.
 * @returns how much was used, in pence
 * @throws RefusedError where there is nothing to use, or nothing to use it for
 */
export function useInHand(world: World, documentId: number, key: string): number {
	return writeAtOnce(world.db, (tx) => applyInTransaction(tx, world, documentId, key));
}

/** As `useInHand`, in the caller's transaction. */
export function applyInTransaction(
	tx: Transaction,
	world: World,
	documentId: number,
	key: string
): number {
	if (wasApplied(tx, key)) return 0;
	const target = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
	if (!target) throw new NotFoundError('This invoice');
	let left = stillToPay(target);
	if (left === 0) throw new RefusedError('Nothing is left to pay on this invoice.');
	const credits = inHandOf(tx, target.payerId);
	if (credits.length === 0) throw new RefusedError('There is no credit on this account.');
	let used = 0;
	for (const [index, credit] of credits.entries()) {
		const amount = Math.min(credit.amount, left);
		if (amount === 0) break;
		useOne(tx, world, target, credit, amount, `${key}:${index}`);
		left -= amount;
		used += amount;
	}
	note(tx, {
		documentId,
		at: world.clock.now(),
		who: 'you',
		what: 'creditApplied',
		detail: displayPounds(used)
	});
	return used;
}

/**
 * Uses a payer's credit for everything open, the one due first, first. The same key again changes nothing.
 * @throws RefusedError where there is no credit, or nothing to use it for
 */
export function useAllInHand(world: World, payerId: number, key: string): number {
	return writeAtOnce(world.db, (tx) => {
		const open = openOf(tx, payerId).filter((item) => item.toPay > 0);
		if (open.length === 0) throw new RefusedError('Nothing is open that the credit could pay.');
		let used = 0;
		for (const { documentId } of open) {
			if (used > 0 && inHandOf(tx, payerId).length === 0) break;
			used += applyInTransaction(tx, world, documentId, `${key}:${documentId}`);
		}
		return used;
	});
}

function wasApplied(tx: Transaction, key: string): boolean {
	const first = `${key}:0`;
	return (
		tx.select({ id: allocations.id }).from(allocations).where(eq(allocations.key, first)).get() !==
			undefined ||
		tx.select({ id: transfers.id }).from(transfers).where(eq(transfers.key, first)).get() !==
			undefined
	);
}

function useOne(
	tx: Transaction,
	world: World,
	target: typeof openItems.$inferSelect,
	{ source }: Credit,
	amount: number,
	key: string
): void {
	const { documentId, customerId, payerId } = target;
	const at = world.clock.now();
	const date = world.clock.today();
	const postings: Posting[] = [];
	const settled = (id: number, customer: number, change: number) => {
		const { withheldChange } = resettle(tx, id);
		const about = { documentId: id, customerId: customer };
		postings.push(
			{ account: 'cisWithheld', amount: withheldChange, ...about },
			{ account: 'receivable', amount: change - withheldChange, ...about }
		);
	};
	if ('paymentId' in source) {
		tx.insert(allocations)
			.values({ paymentId: source.paymentId, documentId, amount, appliedOn: date, key })
			.run();
		postings.push({
			account: 'customerCredit',
			amount,
			documentId: null,
			customerId: payerId
		});
	} else {
		const from = tx
			.select()
			.from(openItems)
			.where(eq(openItems.documentId, source.documentId))
			.get()!;
		tx.insert(transfers)
			.values({ key, fromId: source.documentId, toId: documentId, date, amount, recordedAt: at })
			.run();
		settled(source.documentId, from.customerId, amount);
	}
	settled(documentId, customerId, -amount);
	post(tx, {
		key: `apply:${key}`,
		event: 'apply',
		date,
		documentId,
		customerId,
		recordedAt: at,
		postings
	});
}

/**
 * Gives credit on the account back, by hand. The same key again changes nothing.
 * @throws FieldError, RefusedError
 */
export function returnInHand(world: World, paymentId: number, form: MovedForm): void {
	const { problems, amount, way } = readMoved(world, form, 'back');
	writeAtOnce(world.db, (tx) => {
		const same = tx.select().from(creditReturns).where(eq(creditReturns.key, form.key)).get();
		if (same) return;
		const payment = tx.select().from(payments).where(eq(payments.id, paymentId)).get();
		if (!payment?.payerId) throw new NotFoundError('This payment');
		const left = unusedPayments(tx, payment.payerId).find((one) => one.id === paymentId)?.left ?? 0;
		if (amount > left) problems.amount ??= `At most ${displayPounds(left)} of it is left.`;
		if (Object.keys(problems).length || !way) throw new FieldError(problems);
		const at = world.clock.now();
		tx.insert(creditReturns)
			.values({
				key: form.key,
				paymentId,
				date: form.date,
				amount,
				way,
				reference: form.reference.trim().slice(0, 200),
				recordedAt: at
			})
			.run();
		post(tx, {
			key: `return:${form.key}`,
			event: 'refund',
			date: form.date,
			documentId: null,
			customerId: payment.payerId,
			recordedAt: at,
			postings: [
				{ account: WAY_ACCOUNT[way], amount: -amount },
				{ account: 'customerCredit', amount }
			]
		});
	});
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

/** What the payer of a draft, or of an invoice, has in hand. Pence. */
export function inHandForDraft(world: World, documentId: number): number {
	const item = world.db.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
	const row = world.db.select().from(documents).where(eq(documents.id, documentId)).get();
	if (!row) throw new NotFoundError('This document');
	const customer = customerRecord(world.db, row.sheet.customerId, row.sheet);
	const payerId = item?.payerId ?? customer?.billTo?.id ?? customer?.id;
	return payerId ? inHandOf(world.db, payerId).reduce((sum, one) => sum + one.amount, 0) : 0;
}
