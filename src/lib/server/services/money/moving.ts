// Money that goes from one invoice to another, with what was withheld from it; and back, where its payment is undone.
import { and, desc, eq, notExists } from 'drizzle-orm';
import { laterOf } from '../../../core/calendar/queries';
import { FiguresError } from '../../../core/figures/types';
import { displayMoney } from '../../../core/money/display';
import { RefusedError } from '../../../core/refusals';
import { paidParts, takeLast } from '../../../core/settlement/deductions';
import { mostThatFits } from '../../../core/settlement/settle';
import type { Transaction } from '../../db/connection';
import type { Posting } from '../../db/journal';
import { documents, openItems, transferReversals, transfers } from '../../db/schema';
import type { World } from '../../world';
import { resettle, settleDocument, settlementEntries } from '../ledger/settlement';
import { note } from '../trail/documents';
import { itemOf } from './taking';

type Item = typeof openItems.$inferSelect;

function settledOf(tx: Transaction, documentId: number) {
	const document = tx
		.select({ total: documents.total, deduction: documents.deduction })
		.from(documents)
		.where(eq(documents.id, documentId))
		.get()!;
	const entries = settlementEntries(tx, documentId);
	return { entries, result: settleDocument(document, entries) };
}

/**
 * Moves what was paid beyond one invoice to another that is open, as far as it fits, in the caller's transaction.
 * @returns the cash that was moved in pence, and what is to be posted
 */
export function moveBeyond(
	tx: Transaction,
	world: World,
	fromId: number,
	toId: number,
	key: string
): { amount: number; date: string; postings: Posting[] } {
	const from = itemOf(tx, fromId);
	const to = itemOf(tx, toId);
	if (from.currency !== to.currency)
		throw new RefusedError('Money in hand pays what is in the same money.');
	const { entries, result } = settledOf(tx, fromId);
	const { cash, withheld } = mostThatFits(result, BigInt(to.outstanding));
	const date = entries.reduce((last, entry) => laterOf(last, entry.date), world.clock.today());
	if (cash === 0n) return { amount: 0, date, postings: [] };
	const { taken } = takeLast(paidParts(entries, result), cash, withheld);
	for (const [index, part] of taken.entries())
		tx.insert(transfers)
			.values({
				key: index === 0 ? key : `${key}/${index}`,
				fromId,
				toId,
				date,
				amount: Number(part.cash),
				withheld: Number(part.withheld),
				paidOn: part.paidOn,
				recordedAt: world.clock.now()
			})
			.run();
	return { amount: Number(cash), date, postings: moved(tx, world, from, to, Number(cash)) };
}

/** Both invoices stand anew after so much cash went from one to the other. */
function moved(tx: Transaction, world: World, from: Item, to: Item, cash: number): Posting[] {
	const leaving = resettle(tx, world, from.documentId);
	const coming = resettle(tx, world, to.documentId);
	const at = ({ documentId, customerId }: Item) => ({ documentId, customerId });
	return [
		{ account: 'receivable', amount: cash, ...at(from) },
		...leaving.postings,
		{ account: 'receivable', amount: -cash, ...at(to) },
		...coming.postings
	];
}

/**
 * A payment of an invoice is undone: what was moved on from it comes back, the last first, until what is left was really
 * paid. The invoice itself is settled by the caller.
 * @param postings what is going to be posted; what came back is added
 * @throws RefusedError where money of it was given back, so that it did come in
 */
export function bringBack(
	tx: Transaction,
	world: World,
	documentId: number,
	postings: Posting[]
): void {
	for (;;) {
		const standing = whatStands(tx, documentId);
		if (standing === 'whole') return;
		const last = tx
			.select()
			.from(transfers)
			.where(
				and(
					eq(transfers.fromId, documentId),
					notExists(
						tx
							.select({ id: transferReversals.transferId })
							.from(transferReversals)
							.where(eq(transferReversals.transferId, transfers.id))
					)
				)
			)
			.orderBy(desc(transfers.id))
			.limit(1)
			.get();
		if (!last) {
			if (standing === 'deductionAlone') return;
			throw new RefusedError('Some of it was given back already, so it did come in.');
		}
		const at = world.clock.now();
		tx.insert(transferReversals).values({ transferId: last.id, recordedAt: at }).run();
		bringBack(tx, world, last.toId, postings);
		const { customerId } = itemOf(tx, last.toId);
		const { postings: settled } = resettle(tx, world, last.toId, { pending: postings });
		postings.push(
			{ account: 'receivable', amount: last.amount, documentId: last.toId, customerId },
			...settled,
			{
				account: 'receivable',
				amount: -last.amount,
				documentId,
				customerId: itemOf(tx, documentId).customerId
			}
		);
		note(tx, {
			documentId: last.toId,
			at,
			who: 'you',
			what: 'creditTakenBack',
			detail: displayMoney(last.amount, itemOf(tx, documentId).currency)
		});
	}
}

/**
 * Whether what went out of an invoice, with its deduction, had come in; or its deduction stays behind alone, because what
 * is left of its payments is worked out to another penny than what went with them.
 */
function whatStands(tx: Transaction, documentId: number): 'whole' | 'moreGone' | 'deductionAlone' {
	try {
		const { cash, withheld, expected, inHand } = settledOf(tx, documentId).result;
		if (cash < 0n) return 'moreGone';
		const alone = withheld > 0n && (cash === 0n || (withheld > expected && inHand === 0n));
		return alone ? 'deductionAlone' : 'whole';
	} catch (error) {
		if (error instanceof FiguresError) return 'moreGone';
		throw error;
	}
}
