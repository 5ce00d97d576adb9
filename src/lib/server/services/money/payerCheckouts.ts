// Card payments for several invoices of a payer at once, made through a statement's page.
import { and, eq, inArray } from 'drizzle-orm';
import { displayPounds } from '../../../core/money/display';
import type { Transaction } from '../../db/connection';
import { post, type Posting } from '../../db/journal';
import {
	allocations,
	checkouts,
	creditReturns,
	customers,
	openItems,
	payments,
	refunds,
	statements
} from '../../db/schema';
import type { CardEvent } from '../../gateways/card';
import type { World } from '../../world';
import { unusedPayments } from '../ledger/inHand';
import { openOf } from '../ledger/openInvoices';
import { linkToday } from '../business/links';
import { loadBusiness } from '../business/settings';
import { NotFoundError } from '../../../core/refusals';
import { queueMail } from '../messages/outbox';
import { refundName } from './refunds';
import { takeShared } from './taking';
import { depositPaid } from './depositRequests';
import { queueReceipt } from './receipts';
import { resettle } from '../ledger/settlement';
import { note } from '../trail/documents';

type CheckoutRow = typeof checkouts.$inferSelect;

/** How a payment through a checkout is named, so that it is recorded once. */
export const paymentKey = ({ way, processorId }: Pick<CheckoutRow, 'way' | 'processorId'>) =>
	`${way === 'bank' ? 'transfer' : 'card'}:${processorId}`;

/** A payment for several invoices, through a statement. */
export function accountProgressed(
	tx: Transaction,
	world: World,
	checkout: CheckoutRow,
	event: CardEvent
): void {
	const payerId = checkout.payerId!;
	if (event.type === 'refund.settled') return accountRefunded(tx, world, checkout, event);
	if (checkout.state === 'settled') return;
	const set = (state: CheckoutRow['state']) =>
		tx.update(checkouts).set({ state }).where(eq(checkouts.id, checkout.id)).run();
	if (event.type === 'payment.pending') {
		if (checkout.state === 'open') set('pending');
		return;
	}
	if (event.type === 'payment.declined') return void set('declined');
	set('settled');
	// What was paid another way in the meantime is not paid twice: that part is credit on the account.
	const open = new Map(openOf(tx, payerId).map((item) => [item.documentId, item]));
	const shares = (checkout.shares ?? []).flatMap(({ documentId, amount }) => {
		const part = Math.min(amount, open.get(documentId)?.toPay ?? 0);
		return part > 0 ? [{ documentId, amount: part, withheld: null }] : [];
	});
	const { id } = takeShared(tx, world, {
		key: paymentKey(checkout),
		payerId,
		date: world.clock.today(),
		amount: event.amount,
		way: checkout.way,
		source: 'checkout',
		reference: event.checkout,
		fee: event.fee,
		who: 'customer',
		shares
	});
	if (checkout.depositId) depositPaid(tx, world, checkout.depositId, id);
	const payer = tx.select().from(customers).where(eq(customers.id, payerId)).get()!;
	const owner = loadBusiness(tx);
	const numbers = shares.map(({ documentId }) => open.get(documentId)!.number);
	const statement = tx
		.select({ token: statements.token })
		.from(statements)
		.where(eq(statements.id, checkout.statementId ?? 0))
		.get();
	queueReceipt(
		tx,
		world,
		id,
		statement?.token ? `${world.origin}/s/${linkToday(tx, statement.token)}` : undefined
	);
	if (owner.email)
		queueMail(tx, world, {
			key: `paid:${id}`,
			kind: 'paidNotice',
			to: owner.email,
			subject: `${payer.name} paid ${displayPounds(event.amount)}`,
			text: `${payer.name} paid ${displayPounds(event.amount)} ${checkout.way === 'bank' ? 'from their bank' : 'by card'} for ${checkout.depositId ? 'a deposit' : numbers.join(', ')}.${event.fee ? ` The card fee is ${displayPounds(event.fee)}.` : ''}\n\nSee it here: {link}`,
			link: `${world.origin}/owed/${payerId}`
		});
}

/** Money given back of a payment for several invoices: from what none used first, then from the last of them. */
function accountRefunded(
	tx: Transaction,
	world: World,
	checkout: CheckoutRow,
	event: CardEvent
): void {
	const payment = tx
		.select()
		.from(payments)
		.where(eq(payments.key, `card:${event.checkout}`))
		.get();
	if (!payment) throw new NotFoundError('This payment');
	const payerId = checkout.payerId!;
	const at = world.clock.now();
	const date = world.clock.today();
	const name = refundName(event);
	let rest = event.amount;
	const unused = unusedPayments(tx, payerId).find((one) => one.id === payment.id)?.left ?? 0;
	const postings: Posting[] = [{ account: 'cardClearing', amount: -event.amount }];
	const fromCredit = Math.min(rest, Math.max(unused, 0));
	if (fromCredit > 0) {
		const key = `${name}:credit`;
		const values = { key, paymentId: payment.id, date, amount: fromCredit, recordedAt: at };
		tx.insert(creditReturns)
			.values({ ...values, way: 'card', reference: event.checkout })
			.run();
		postings.push({ account: 'customerCredit', amount: fromCredit, documentId: null });
		rest -= fromCredit;
	}
	const parts = tx.select().from(allocations).where(eq(allocations.paymentId, payment.id)).all();
	/** What went back of it before, by invoice: of no part more goes back than came in by it. */
	const before = new Map<number, number>();
	for (const one of tx
		.select({ documentId: refunds.documentId, amount: refunds.amount })
		.from(refunds)
		.where(
			and(
				inArray(
					refunds.documentId,
					parts.map((part) => part.documentId)
				),
				eq(refunds.reference, event.checkout),
				eq(refunds.way, 'card')
			)
		)
		.all())
		before.set(one.documentId, (before.get(one.documentId) ?? 0) + one.amount);
	for (const part of parts.reverse()) {
		const gone = Math.min(before.get(part.documentId) ?? 0, part.amount);
		before.set(part.documentId, (before.get(part.documentId) ?? 0) - gone);
		const amount = Math.min(rest, part.amount - gone);
		if (amount === 0) continue;
		const { documentId } = part;
		tx.insert(refunds)
			.values({
				key: `${name}:${part.id}`,
				documentId,
				date,
				amount,
				way: 'card',
				reference: event.checkout,
				recordedAt: at
			})
			.run();
		const change = resettle(tx, world, documentId, { pending: postings });
		const { customerId } = tx
			.select()
			.from(openItems)
			.where(eq(openItems.documentId, documentId))
			.get()!;
		postings.push({ account: 'receivable', amount, documentId, customerId }, ...change.postings);
		note(tx, { documentId, at, who: 'you', what: 'refunded', detail: displayPounds(amount) });
		rest -= amount;
	}
	post(tx, {
		key: `refund:${name}`,
		event: 'refund',
		date,
		documentId: null,
		customerId: payerId,
		recordedAt: at,
		postings
	});
}
