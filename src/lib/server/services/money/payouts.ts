// Payouts of the card processor: which payments are in which, what it kept, what reached the bank.
import { must } from '../../actor';
import { asc, desc, eq, gt, inArray, lt, sql } from 'drizzle-orm';
import { pageOf, type Cursor } from '../../../core/paging';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { post } from '../../db/journal';
import {
	allocations,
	checkouts,
	documents,
	oddNews,
	payments,
	payoutParts,
	payouts,
	webhookEvents
} from '../../db/schema';
import { payoutEvent, type PayoutEvent } from '../../gateways/card';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import type { World } from '../../world';
import { oddPayout, setAside } from './oddNews';

/** Takes the news of a payout: booked where it fits what is known, kept aside where it does not. */
export function receivePayout(world: World, event: PayoutEvent, body: string): void {
	const now = world.clock.now();
	writeAtOnce(world.db, (tx) => {
		const fresh = tx
			.insert(webhookEvents)
			.values({ id: event.id, type: event.type, receivedAt: now, body })
			.onConflictDoNothing()
			.run().changes;
		if (!fresh) return;
		const known = tx.select().from(payouts).where(eq(payouts.processorId, event.payout)).get();
		if (known) return;
		const why = oddPayout(tx, event);
		if (why) setAside(tx, world, event, why, body);
		else bookPayout(tx, world, event);
	});
}

/** Books a payout, once: from the processor's account to the bank. */
export function bookPayout(tx: Transaction, world: World, event: PayoutEvent): void {
	const { amount, reference } = event;
	const [date, now] = [world.clock.today(), world.clock.now()];
	const inserted = tx
		.insert(payouts)
		.values({ processorId: event.payout, date, amount, reference, recordedAt: now })
		.onConflictDoNothing()
		.returning({ id: payouts.id })
		.get();
	if (!inserted) return;
	for (const part of event.parts ?? [])
		tx.insert(payoutParts)
			.values({ payoutId: inserted.id, ...part })
			.run();
	post(tx, {
		key: `payout:${event.payout}`,
		event: 'payout',
		date,
		documentId: null,
		customerId: null,
		recordedAt: now,
		postings: [
			{ account: 'bank', amount },
			{ account: 'cardClearing', amount: -amount }
		]
	});
}

/**
 * The owner has looked: a payout is booked all the same, or it is settled outside and only put away. A second press changes nothing.
 * @throws NotFoundError; RefusedError for what cannot be booked
 */
export function decideOddNews(world: World, id: number, decision: 'taken' | 'dismissed'): void {
	must('money');
	writeAtOnce(world.db, (tx) => {
		const row = tx.select().from(oddNews).where(eq(oddNews.id, id)).get();
		if (!row) throw new NotFoundError('This news');
		if (row.decision) return;
		if (decision === 'taken') {
			const payout = payoutEvent.safeParse(JSON.parse(row.body));
			if (!payout.success)
				throw new RefusedError(
					'More was given back than was paid: that cannot be booked. Ask the card processor.'
				);
			bookPayout(tx, world, payout.data);
		}
		tx.update(oddNews)
			.set({ decision, decidedAt: world.clock.now() })
			.where(eq(oddNews.id, id))
			.run();
	});
}

export interface PayoutPart {
	type: 'payment' | 'refund';
	/** Pence; a refund's is below zero. */
	amount: number;
	fee: number;
	payer: string;
	documents: { id: number; number: string }[];
}

const PER_PAGE = 20;

/** Payouts, the newest first, with what each is made of; and what still lies with the processor. */
export function payoutPage(world: World, cursor: Cursor | null = null) {
	const { db } = world;
	const rows = db
		.select()
		.from(payouts)
		.where(
			cursor
				? cursor.way === 'before'
					? gt(payouts.id, cursor.id)
					: lt(payouts.id, cursor.id)
				: undefined
		)
		.orderBy(cursor?.way === 'before' ? asc(payouts.id) : desc(payouts.id))
		.limit(PER_PAGE + 1)
		.all();
	const { rows: shown, ...places } = pageOf(rows, PER_PAGE, cursor, ({ id }) => ({ key: '', id }));
	const parts = shown.length
		? db
				.select({ part: payoutParts, payer: sql<string>`coalesce(c.name, d.customer_name, '')` })
				.from(payoutParts)
				.leftJoin(checkouts, eq(checkouts.processorId, payoutParts.checkout))
				.leftJoin(sql`customers c`, sql`c.id = ${checkouts.payerId}`)
				.leftJoin(sql`documents d`, sql`d.id = ${checkouts.documentId}`)
				.where(
					inArray(
						payoutParts.payoutId,
						shown.map((row) => row.id)
					)
				)
				.orderBy(payoutParts.id)
				.all()
		: [];
	const paid = documentsOf(
		world,
		parts.map(({ part }) => part.checkout)
	);
	const { waiting } = db.get<{ waiting: number }>(
		sql`select coalesce(sum(amount), 0) as waiting from journal_lines where account = 'cardClearing'`
	)!;
	return {
		waiting,
		...places,
		payouts: shown.map((row) => {
			const own = parts.filter(({ part }) => part.payoutId === row.id);
			return {
				id: row.id,
				date: row.date,
				amount: row.amount,
				reference: row.reference,
				seenOn: row.seenOn,
				collected: own.reduce((sum, { part }) => sum + part.amount, 0),
				fees: own.reduce((sum, { part }) => sum + part.fee, 0),
				parts: own.map(({ part, payer }): PayoutPart => ({
					type: part.type,
					amount: part.amount,
					fee: part.fee,
					payer,
					documents: paid.get(part.checkout) ?? []
				}))
			};
		})
	};
}

/** Which invoices the money of a checkout paid. */
function documentsOf(world: World, processorIds: readonly string[]) {
	const found = new Map<string, { id: number; number: string }[]>();
	for (let start = 0; start < processorIds.length; start += 500) {
		const rows = world.db
			.select({ checkout: payments.reference, id: documents.id, number: documents.number })
			.from(payments)
			.innerJoin(allocations, eq(allocations.paymentId, payments.id))
			.innerJoin(documents, eq(documents.id, allocations.documentId))
			.where(inArray(payments.reference, processorIds.slice(start, start + 500)))
			.all();
		for (const { checkout, id, number } of rows)
			found.set(checkout, [...(found.get(checkout) ?? []), { id, number: number ?? '' }]);
	}
	return found;
}
