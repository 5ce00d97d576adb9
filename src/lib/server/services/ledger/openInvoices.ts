// What a payer has open.
import { and, asc, eq, inArray, sql } from 'drizzle-orm';
import { BOOKS, type Currency } from '../../../core/money/currencies';
import type { Reader } from '../../db/connection';
import { documents, openItems } from '../../db/schema';

/** Where an invoice stands; nothing where it was never issued. */
export function openItemOf(db: Reader, documentId: number) {
	return db.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
}

/**
 * A payer's open invoices in one money, the one due first, first, in its minor units. One payment never settles across
 * money unseen, so nobody gets those of several at once.
 */
export function openOf(db: Reader, payerId: number, currency: Currency = BOOKS) {
	return db
		.select({
			item: openItems,
			number: documents.number,
			token: sql<string>`coalesce((select l.now from links l where l.token = ${documents.token}), ${documents.token})`
		})
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.where(
			and(
				eq(openItems.payerId, payerId),
				eq(openItems.currency, currency),
				inArray(openItems.state, ['open', 'partPaid'])
			)
		)
		.orderBy(asc(openItems.dueDate), asc(openItems.documentId))
		.all()
		.map(({ item, number, token }) => ({
			...item,
			number: number!,
			token
		}));
}

/** Which of these invoices something could be withheld from: a firm may turn out to be a contractor, a household never. */
export function mayDeduct(db: Reader, documentIds: readonly number[]): Set<number> {
	if (documentIds.length === 0) return new Set();
	return new Set(
		db
			.select({ id: documents.id })
			.from(documents)
			.where(
				and(
					inArray(documents.id, [...documentIds]),
					sql`json_extract(${documents.frozen}, '$.customer.kind') <> 'household'`
				)
			)
			.all()
			.map((row) => row.id)
	);
}

/** The money a payer has anything open in, pounds first. */
export const currenciesOf = (db: Reader, payerId: number): Currency[] =>
	db
		.all<{ currency: Currency }>(
			sql`select distinct currency from open_items where payer_id = ${payerId} and state in ('open', 'partPaid')
				order by currency = 'GBP' desc, currency`
		)
		.map(({ currency }) => currency);
