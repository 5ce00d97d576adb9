// What a payer has in hand: money that no document has used up yet.
import { and, eq, gt, inArray, sql } from 'drizzle-orm';
import type { PlainDate } from '../../../core/calendar/types';
import { BOOKS, type Currency } from '../../../core/money/currencies';
import { customers, documents, openItems } from '../../db/schema';
import type { Reader } from '../../db/connection';

/**
 * Something a payer has in hand: a payment no invoice used up, or what it paid for an invoice beyond its sum. What was
 * withheld with it is none: it goes along when the money does.
 */
export interface Credit {
	source: { paymentId: number } | { documentId: number };
	date: PlainDate;
	/** Pence. */
	amount: number;
	what: string;
}

/** So many of the newest payments are looked at for what needs doing: what is older was said long ago. */
const NEWEST = 2_000;

/**
 * What is left of each payment, of those with anything left. Pence.
 * @param of a payer; absent: everybody; `newest`: everybody's newest payments, quickly
 */
export function unusedPayments(db: Reader, of?: number | 'newest') {
	return db.all<{ id: number; payerId: number; date: string; reference: string; left: number }>(sql`
		select p.id, p.payer_id as payerId, p.date, p.reference, p.amount
			- coalesce((select sum(a.amount) from allocations a where a.payment_id = p.id), 0)
			- coalesce((select sum(r.amount) from credit_returns r where r.payment_id = p.id), 0) as left
		from ${of === 'newest' ? sql`(select * from payments order by id desc limit ${NEWEST})` : sql`payments`} p
		where ${typeof of === 'number' ? sql`p.payer_id = ${of}` : sql`p.payer_id is not null`}
			and not exists (select 1 from payment_reversals v where v.payment_id = p.id)
			and left <> 0 order by p.date, p.id`);
}

/** A payer's credit in one money, the earliest first: it pays what is in the same. What no invoice took is always in pounds. */
export function inHandOf(db: Reader, payerId: number, currency: Currency = BOOKS): Credit[] {
	const payments = currency === BOOKS ? unusedPayments(db, payerId) : [];
	const unused = payments.map((one): Credit => ({
		source: { paymentId: one.id },
		date: one.date,
		amount: one.left,
		what: `Payment${one.reference ? ` “${one.reference}”` : ''}`
	}));
	const beyond = db
		.select({ item: openItems, number: documents.number })
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.where(
			and(eq(openItems.payerId, payerId), eq(openItems.currency, currency), gt(openItems.inHand, 0))
		)
		.all()
		.map(({ item, number }): Credit => ({
			source: { documentId: item.documentId },
			date: item.settledOn ?? item.issueDate,
			amount: item.inHand,
			what: `More than ${number} comes to`
		}));
	return [...unused, ...beyond].sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0));
}

/** Everybody who has something in hand, the most first. Pence. */
export function payersInHand(db: Reader): { payerId: number; payer: string; amount: number }[] {
	const sums = new Map<number, number>();
	const add = (payerId: number, amount: number) =>
		sums.set(payerId, (sums.get(payerId) ?? 0) + amount);
	for (const { payerId, left } of unusedPayments(db)) add(payerId, left);
	const beyond = db
		.select({ payerId: openItems.payerId, amount: openItems.inHand })
		.from(openItems)
		.where(and(eq(openItems.currency, BOOKS), gt(openItems.inHand, 0)))
		.all();
	for (const { payerId, amount } of beyond) add(payerId, amount);
	const ids = [...sums].flatMap(([payerId, amount]) => (amount > 0 ? [payerId] : []));
	return db
		.select({ payerId: customers.id, payer: customers.name })
		.from(customers)
		.where(inArray(customers.id, ids))
		.all()
		.map((one) => ({ ...one, amount: sums.get(one.payerId)! }))
		.sort((a, b) => b.amount - a.amount || a.payerId - b.payerId);
}
