// A discount for paying in time that was taken: its credit note is a press away, and a next move until it is issued.
import { and, eq, gt, sql } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { promptOffer, promptWishes, type PromptOffer } from '../../../core/documents/prompt';
import { formatDecimal } from '../../../core/money/decimal';
import { displayMoney } from '../../../core/money/display';
import { MOST_MOVES, type Move } from '../../../core/moves';
import { NotFoundError, RefusedError } from '../../../core/refusals';
import type { Reader } from '../../db/connection';
import { documents, openItems } from '../../db/schema';
import { openItemOf } from '../ledger/openInvoices';
import type { World } from '../../world';
import { creditPart, leftOfInvoice } from '../invoices/creditNote';
import type { Issued } from '../invoices/issuing';
import { settlementEntries } from '../ledger/settlement';

export interface PromptStanding extends PromptOffer {
	/** What was paid in time is what was to pay then: the discount was taken. */
	taken: boolean;
}

/** What an invoice offers for paying in time, and whether it was taken; null where nothing is offered or left to credit. */
export function promptStanding(db: Reader, documentId: number): PromptStanding | null {
	const item = db.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
	const row = db
		.select({ frozen: documents.frozen })
		.from(documents)
		.where(eq(documents.id, documentId))
		.get();
	if (!item || !row?.frozen?.sheet.prompt || item.outstanding === 0) return null;
	const offer = promptOffer(row.frozen, leftOfInvoice(db, documentId));
	if (!offer) return null;
	const inTime = settlementEntries(db, documentId).reduce((sum, entry) => {
		if (entry.date > offer.until) return sum;
		if (entry.type === 'payment') return sum + entry.amount;
		return entry.type === 'refund' ? sum - entry.amount : sum;
	}, 0n);
	return { ...offer, taken: inTime >= offer.payable };
}

const currencyOf = (db: Reader, documentId: number) => openItemOf(db, documentId)?.currency;

/**
 * The credit note for a discount that was taken. Asked twice, it is the same one.
 * @throws NotFoundError, RefusedError where it was not taken
 */
export async function creditPrompt(world: World, documentId: number): Promise<Issued> {
	const key = `prompt:${documentId}`;
	const same = world.db.select().from(documents).where(eq(documents.key, key)).get();
	if (same?.number) return { id: same.id, number: same.number };
	const standing = promptStanding(world.db, documentId);
	if (!standing) throw new NotFoundError('A discount for paying in time');
	if (!standing.taken)
		throw new RefusedError(
			`Nothing like ${displayMoney(standing.payable, currencyOf(world.db, documentId))} had come in by ${displayDate(standing.until)}.`
		);
	return creditPart(world, documentId, {
		key,
		reason: `Discount of ${formatDecimal(standing.percent)} % for paying by ${displayDate(standing.until)}`,
		wishes: promptWishes(standing.percent),
		again: false,
		send: true
	});
}

/** Discounts that were taken and have no credit note yet: until then too much VAT is accounted for. */
export function promptMoves({ db }: World): Move[] {
	return db
		.select({ id: documents.id, number: documents.number, customer: documents.customerName })
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.where(
			and(
				eq(openItems.state, 'partPaid'),
				gt(openItems.toPay, 0),
				sql`json_extract(${documents.frozen}, '$.sheet.prompt.percent') <> ''`
			)
		)
		.limit(MOST_MOVES)
		.all()
		.flatMap(({ id, number, customer }): Move[] => {
			const standing = promptStanding(db, id);
			if (!standing?.taken) return [];
			return [
				{
					id: `prompt:${id}`,
					amount: standing.off,
					late: false,
					title: `${customer} paid ${number} in time`,
					detail: `Credit the discount of ${formatDecimal(standing.percent)} %, ${displayMoney(standing.off, currencyOf(db, id))}`,
					action: 'Credit it',
					href: `/billing/${id}`
				}
			];
		});
}
