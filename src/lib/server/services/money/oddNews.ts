// Signed news that does not fit the books: a refund of more than was paid, a payout that does not add up. It is kept aside and asked about, never booked by itself.
import { and, desc, eq, inArray, isNull, like, or } from 'drizzle-orm';
import type { Move } from '../../../core/moves';
import { displayPounds } from '../../../core/money/display';
import { NotFoundError } from '../../../core/refusals';
import { writeAtOnce, type Transaction } from '../../db/connection';
import { checkouts, creditReturns, oddNews, payments, payoutParts, refunds } from '../../db/schema';
import type { CardEvent, PayoutEvent } from '../../gateways/card';
import type { World } from '../../world';
import { refundedSoFar, refundName } from './refunds';

/** What to do with news of a refund: take it, pass over what was taken before, or why it does not fit. @throws NotFoundError before its payment is known */
export function judgeRefund(tx: Transaction, event: CardEvent): 'take' | 'known' | { why: string } {
	const name = refundName(event);
	const booked =
		tx
			.select({ id: refunds.id })
			.from(refunds)
			.where(or(eq(refunds.key, name), like(refunds.key, `${name}:%`)))
			.get() ??
		tx
			.select({ id: creditReturns.id })
			.from(creditReturns)
			.where(like(creditReturns.key, `${name}:%`))
			.get();
	if (booked) return 'known';
	const payment = tx
		.select({ amount: payments.amount })
		.from(payments)
		.where(and(eq(payments.reference, event.checkout), eq(payments.source, 'checkout')))
		.get();
	if (!payment) throw new NotFoundError('This payment');
	const left = payment.amount - refundedSoFar(tx, event.checkout);
	return event.amount <= left
		? 'take'
		: {
				why: `It gives back ${displayPounds(event.amount)} of a payment of which ${displayPounds(left)} is left.`
			};
}

/** Why a payout does not fit what is known; null where it does. */
export function oddPayout(tx: Transaction, { amount, parts }: PayoutEvent): string | null {
	if (!parts?.length) return 'It does not say which payments are in it.';
	const sum = parts.reduce((total, part) => total + part.amount - part.fee, 0);
	if (sum !== amount)
		return `What is in it comes to ${displayPounds(sum)}, and ${displayPounds(amount)} is said to be sent.`;
	const names = [...new Set(parts.map((part) => part.checkout))];
	const paid = parts.filter((part) => part.type === 'payment').map((part) => part.checkout);
	if (new Set(paid).size < paid.length) return 'It pays the same payment out twice.';
	for (let start = 0; start < names.length; start += 500) {
		const some = names.slice(start, start + 500);
		const known = tx
			.select({ name: checkouts.processorId })
			.from(checkouts)
			.where(inArray(checkouts.processorId, some))
			.all();
		if (known.length < some.length) return 'It pays out a payment that is not known here.';
		const before = tx
			.select({ name: payoutParts.checkout })
			.from(payoutParts)
			.where(and(inArray(payoutParts.checkout, some), eq(payoutParts.type, 'payment')))
			.all();
		if (before.some(({ name }) => paid.includes(name)))
			return 'It pays out a payment that an earlier payout has paid out.';
	}
	return null;
}

export function setAside(
	tx: Transaction,
	world: World,
	news: { id: string; type: string; amount: number },
	why: string,
	body: string
): void {
	tx.insert(oddNews)
		.values({
			eventId: news.id,
			type: news.type,
			amount: news.amount,
			why,
			body,
			receivedAt: world.clock.now()
		})
		.onConflictDoNothing()
		.run();
}

/** News of a payment that books from a backup do not know: it was begun after the backup. A second time it stands there already. */
export const setAsideUnknown = (
	world: World,
	news: { id: string; type: string; amount: number },
	body: string
): void =>
	writeAtOnce(world.db, (tx) =>
		setAside(
			tx,
			world,
			news,
			`It is of a payment that was begun after the backup: ${displayPounds(news.amount)}. Record it by hand, with the invoice it is for.`,
			body
		)
	);

/** What is asked about, the newest first. */
export const openOddNews = (world: World) =>
	world.db
		.select({
			id: oddNews.id,
			type: oddNews.type,
			amount: oddNews.amount,
			why: oddNews.why,
			receivedAt: oddNews.receivedAt
		})
		.from(oddNews)
		.where(isNull(oddNews.decision))
		.orderBy(desc(oddNews.id))
		.limit(50)
		.all();

export function oddNewsMoves(world: World): Move[] {
	const [first, ...more] = openOddNews(world);
	if (!first) return [];
	return [
		{
			id: 'odd-news',
			amount: BigInt(first.amount),
			late: false,
			title: more.length
				? `${more.length + 1} messages of the card processor do not fit your books`
				: 'A message of the card processor does not fit your books',
			detail: first.why,
			action: 'Decide',
			href: '/money/payouts#odd'
		}
	];
}
