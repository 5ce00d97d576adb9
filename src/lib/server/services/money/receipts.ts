// Receipts: what came in and for what, to whoever paid. Written with the payment, sent after it.
import { asc, eq } from 'drizzle-orm';
import { accountReceipt, receiptMessage } from '../../../core/documents/wording';
import type { Transaction } from '../../db/connection';
import { allocations, documents, openItems, payments } from '../../db/schema';
import type { World } from '../../world';
import { openOf } from '../ledger/openInvoices';
import { loadBusiness } from '../business/settings';
import { mailAddresses } from '../customers/parts';
import { linkOf, queueMail } from '../messages/outbox';

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
	const payment = tx.select().from(payments).where(eq(payments.id, paymentId)).get()!;
	const paid = tx
		.select({ document: documents, item: openItems })
		.from(allocations)
		.innerJoin(documents, eq(documents.id, allocations.documentId))
		.innerJoin(openItems, eq(openItems.documentId, allocations.documentId))
		.where(eq(allocations.paymentId, paymentId))
		.orderBy(asc(openItems.dueDate))
		.all();
	const payerId = payment.payerId ?? paid[0]?.item.payerId;
	const to = payerId ? mailAddresses(tx, payerId)[0] : undefined;
	if (!payerId || !to) return false;
	const only = paid.length === 1 ? paid[0]! : null;
	const base = { key: `receipt:${paymentId}`, kind: 'receipt' as const, to };
	if (only && only.document.frozen) {
		const { id, frozen, number } = only.document;
		const left = BigInt(only.item.outstanding);
		queueMail(tx, world, {
			...base,
			documentId: id,
			...receiptMessage(frozen, number!, BigInt(payment.amount), left),
			link: link ?? linkOf(tx, world, id)
		});
		return true;
	}
	const owner = loadBusiness(tx);
	const left = openOf(tx, payerId).reduce((sum, item) => sum + item.toPay, 0);
	const message = accountReceipt(
		owner.tradingName || owner.ownerName,
		paid.map(({ document }) => document.number!),
		BigInt(payment.amount),
		BigInt(left)
	);
	const first = paid[0]?.document.id;
	queueMail(tx, world, {
		...base,
		subject: message.subject,
		text:
			link || first
				? message.text
				: message.text
						.split('\n\n')
						.filter((one) => !one.includes('{link}'))
						.join('\n\n'),
		link: link ?? (first ? linkOf(tx, world, first) : null)
	});
	return true;
}
