// Receipts: what came in and for what, to whoever paid. Written with the payment, sent after it.
import { asc, eq } from 'drizzle-orm';
import { receiptMessage, type Receipt } from '../../../core/documents/wording';
import type { Reader, Transaction } from '../../db/connection';
import { allocations, documents, openItems, payments } from '../../db/schema';
import { payerOf, voiceFor } from '../wordings/voice';
import type { World } from '../../world';
import { openOf } from '../ledger/openInvoices';
import { loadBusiness } from '../business/settings';
import { mailAddresses } from '../customers/parts';
import { linkOf, queueMail } from '../messages/outbox';

/** What a payment's receipt is about; null where it is not known whose it is. */
export function receiptFor(db: Reader, paymentId: number) {
	const payment = db.select().from(payments).where(eq(payments.id, paymentId)).get()!;
	const paid = db
		.select({ document: documents, item: openItems })
		.from(allocations)
		.innerJoin(documents, eq(documents.id, allocations.documentId))
		.innerJoin(openItems, eq(openItems.documentId, allocations.documentId))
		.where(eq(allocations.paymentId, paymentId))
		.orderBy(asc(openItems.dueDate))
		.all();
	const payerId = payment.payerId ?? paid[0]?.item.payerId;
	if (!payerId) return null;
	const only = paid.length === 1 ? paid[0]! : null;
	const receipt: Receipt = {
		seller: only?.document.frozen?.seller ?? loadBusiness(db),
		customer: payerOf(db, payerId),
		paid: BigInt(payment.amount),
		numbers: paid.map(({ document }) => document.number!),
		left: BigInt(
			only
				? only.item.outstanding
				: openOf(db, payerId, payment.currency).reduce((sum, item) => sum + item.toPay, 0)
		),
		currency: payment.currency,
		one: only !== null,
		linked: paid.length > 0
	};
	return { payerId, receipt, first: paid[0]?.document.id, only: only?.document.id };
}

/**
 * Queues the receipt of a payment, once. `link` is where it leads; else the pay page of the first invoice it is for.
 * @returns whether there is an address to send it to
 */
export function queueReceipt(
	tx: Transaction,
	world: World,
	paymentId: number,
	link?: string
): boolean {
	const found = receiptFor(tx, paymentId);
	const to = found ? mailAddresses(tx, found.payerId)[0] : undefined;
	if (!found || !to) return false;
	const { payerId, receipt, first, only } = found;
	const page = link ?? (first === undefined ? null : linkOf(tx, world, first));
	queueMail(tx, world, {
		key: `receipt:${paymentId}`,
		kind: 'receipt',
		to,
		...(only === undefined ? {} : { documentId: only }),
		...receiptMessage({ ...receipt, linked: page !== null }, voiceFor(tx, payerId)),
		link: page
	});
	return true;
}
