// Money in hand, used for what is open or given back.
import { must } from '../../actor';
import { eq } from 'drizzle-orm';
import { laterOf } from '../../../core/calendar/queries';
import { BOOKS } from '../../../core/money/currencies';
import { displayMoney } from '../../../core/money/display';
import type { Advance } from '../../../core/documents/taxPoints';
import type { Sheet } from '../../../core/sheet/types';
import { writeAtOnce, type Reader, type Transaction } from '../../db/connection';
import { post, type Posting } from '../../db/journal';
import { allocations, creditReturns, openItems, payments, transfers } from '../../db/schema';
import type { World } from '../../world';
import { FieldError, NotFoundError, RefusedError } from '../../../core/refusals';
import { loadDraft } from '../invoices/drafts';
import { openItemOf, openOf } from '../ledger/openInvoices';
import { readMoved, type MovedForm } from './form';
import { moveBeyond } from './moving';
import { WAY_ACCOUNT } from './taking';
import { resettle } from '../ledger/settlement';
import { stillToPay } from '../ledger/position';
import { note } from '../trail/documents';
import { type Credit, unusedPayments, inHandOf } from '../ledger/inHand';
import { documents } from '../../db/schema';
import { customerRecord } from '../customers/parts';

/**
 * Uses a payer's credit, the earliest first, for an invoice: all that fits. The same key again changes nothing.
 * @returns how much was used, in pence
 * @throws RefusedError where there is nothing to use, or nothing to use it for
 */
export function useInHand(world: World, documentId: number, key: string): number {
	must('money');
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
	if (target.outstanding === 0 || stillToPay(target) === 0)
		throw new RefusedError('Nothing is left to pay on this invoice.');
	const credits = inHandOf(tx, target.payerId, target.currency).filter(
		({ source }) => !('documentId' in source) || source.documentId !== documentId
	);
	if (credits.length === 0) throw new RefusedError('There is no credit on this account.');
	let used = 0;
	for (const [index, credit] of credits.entries())
		used += useOne(tx, world, documentId, credit, `${key}:${index}`);
	note(tx, {
		documentId,
		at: world.clock.now(),
		who: 'you',
		what: 'creditApplied',
		detail: displayMoney(used, target.currency)
	});
	return used;
}

/**
 * What was paid of an invoice moves to the one that stands in its place, with its deduction, as far as it fits; unless
 * somebody else has to pay that. In the transaction that issues it.
 */
export function moveCorrected(tx: Transaction, world: World, documentId: number): void {
	const row = tx
		.select({ aboutId: documents.aboutId })
		.from(documents)
		.where(eq(documents.id, documentId))
		.get();
	// Hardly any is about another, and a long sheet takes its time to be read.
	if (row?.aboutId == null) return;
	const { about } = loadDraft(tx, documentId).sheet;
	if (about?.as !== 'replacement') return;
	const [from, to] = [openItemOf(tx, about.invoiceId), openItemOf(tx, documentId)];
	if (!from || !to || from.payerId !== to.payerId || from.inHand === 0) return;
	if (from.currency !== to.currency) return;
	const source = { documentId: about.invoiceId };
	const used = useOne(
		tx,
		world,
		documentId,
		{ source, amount: from.inHand, date: from.issueDate },
		`correct:${documentId}`
	);
	if (used > 0)
		note(tx, {
			documentId,
			at: world.clock.now(),
			who: 'you',
			what: 'creditApplied',
			detail: displayMoney(used, to.currency)
		});
}

/**
 * Uses a payer's credit for everything open, the one due first, first. The same key again changes nothing.
 * @throws RefusedError where there is no credit, or nothing to use it for
 */
export function useAllInHand(world: World, payerId: number, key: string): number {
	must('money');
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

/** Uses one thing in hand as far as it fits. @returns how much, in pence */
function useOne(
	tx: Transaction,
	world: World,
	documentId: number,
	{ source, amount: inHand, date: came }: Pick<Credit, 'source' | 'amount' | 'date'>,
	key: string
): number {
	const target = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get()!;
	const { customerId, payerId, currency } = target;
	let date = laterOf(world.clock.today(), came);
	let amount: number;
	let postings: Posting[];
	if ('paymentId' in source) {
		amount = Math.min(inHand, stillToPay(target));
		if (amount === 0) return 0;
		tx.insert(allocations)
			.values({ paymentId: source.paymentId, documentId, amount, appliedOn: date, key })
			.run();
		postings = [
			{ account: 'customerCredit', amount, documentId: null, customerId: payerId },
			{ account: 'receivable', amount: -amount, documentId, customerId },
			...resettle(tx, world, documentId).postings
		];
	} else ({ amount, date, postings } = moveBeyond(tx, world, source.documentId, documentId, key));
	if (amount > 0)
		post(tx, {
			key: `apply:${key}`,
			event: 'apply',
			date,
			documentId,
			customerId,
			recordedAt: world.clock.now(),
			currency,
			postings
		});
	return amount;
}

/**
 * Gives credit on the account back, by hand. The same key again changes nothing.
 * @throws FieldError, RefusedError
 */
export function returnInHand(world: World, paymentId: number, form: MovedForm): void {
	must('money');
	const { problems, amount, way } = readMoved(world, form, 'back');
	writeAtOnce(world.db, (tx) => {
		const same = tx.select().from(creditReturns).where(eq(creditReturns.key, form.key)).get();
		if (same) return;
		const payment = tx.select().from(payments).where(eq(payments.id, paymentId)).get();
		if (!payment?.payerId) throw new NotFoundError('This payment');
		const left = unusedPayments(tx, payment.payerId).find((one) => one.id === paymentId)?.left ?? 0;
		if (amount > left) problems.amount ??= `At most ${displayMoney(left)} of it is left.`;
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

/** Payments in hand that would pay a sheet, in the order in which they are used: they came before it. */
export function advancesFor(db: Reader, sheet: Sheet): Advance[] {
	const customer = customerRecord(db, sheet.customerId, sheet);
	const payerId = customer?.billTo?.id ?? customer?.id;
	if (payerId === undefined || (sheet.currency ?? BOOKS) !== BOOKS) return [];
	return inHandOf(db, payerId).flatMap(({ source, date, amount }) =>
		'paymentId' in source ? [{ date, amount: BigInt(amount) }] : []
	);
}

/** What the payer of a draft, or of an invoice, has in hand. Pence. */
export function inHandForDraft(world: World, documentId: number): number {
	const item = world.db.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
	const row = world.db.select().from(documents).where(eq(documents.id, documentId)).get();
	if (!row) throw new NotFoundError('This document');
	const customer = customerRecord(world.db, row.sheet.customerId, row.sheet);
	const payerId = item?.payerId ?? customer?.billTo?.id ?? customer?.id;
	const currency = item?.currency ?? row.sheet.currency ?? BOOKS;
	return payerId
		? inHandOf(world.db, payerId, currency).reduce((sum, one) => sum + one.amount, 0)
		: 0;
}
