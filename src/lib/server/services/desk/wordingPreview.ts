// What the fields of a message become for something real, so that its words are seen before they go out.
import { and, desc, eq, isNotNull, like, or, sql, type SQL } from 'drizzle-orm';
import { displayDate } from '../../../core/calendar/conversion';
import { documentValues, receiptValues, statementValues } from '../../../core/documents/wording';
import { frozenFigures } from '../../../core/documents/frozen';
import { quoteValues } from '../../../core/quotes/wording';
import { displayPounds } from '../../../core/money/display';
import { EXAMPLE, type WordingKind } from '../../../core/wordings/kinds';
import type { Values } from '../../../core/wordings/fill';
import { NotFoundError } from '../../../core/refusals';
import type { Reader } from '../../db/connection';
import { customers, documents, openItems, payments, quotes } from '../../db/schema';
import type { World } from '../../world';
import { loadBusiness } from '../business/settings';
import { receiptFor } from '../money/receipts';
import { asSent, newestVersion } from '../quotes/send';
import { buildStatement, readStatementOptions } from '../owed/statements';
import { greetedOf, payerOf, voiceFor } from '../wordings/voice';

const FOUND = 12;

const OF_QUOTES = ['quote', 'quoteReminder', 'quoteExpires', 'accepted', 'depositRequest'] as const;
const isOfQuote = (kind: WordingKind): kind is (typeof OF_QUOTES)[number] =>
	(OF_QUOTES as readonly string[]).includes(kind);

export interface Something {
	id: number;
	title: string;
	detail: string;
}

/** The newest things of which such a message would tell, or those that match what is typed. */
export function somethingReal(db: Reader, kind: WordingKind, typed: string): Something[] {
	const named = typed.trim();
	const has = (...columns: Parameters<typeof like>[0][]): SQL | undefined =>
		named === '' ? undefined : or(...columns.map((column) => like(column, `%${named}%`)));
	if (kind === 'statement')
		return db
			.selectDistinct({ id: customers.id, title: customers.name })
			.from(openItems)
			.innerJoin(customers, eq(customers.id, openItems.payerId))
			.where(has(customers.name))
			.orderBy(desc(customers.id))
			.limit(FOUND)
			.all()
			.map((row) => ({ ...row, detail: '' }));
	if (kind === 'receipt')
		return db
			.select({
				id: payments.id,
				title: sql<string>`coalesce(${customers.name}, '')`,
				amount: payments.amount,
				date: payments.date
			})
			.from(payments)
			.leftJoin(customers, eq(customers.id, payments.payerId))
			.where(has(customers.name, payments.reference))
			.orderBy(desc(payments.id))
			.limit(FOUND)
			.all()
			.map(({ id, title, amount, date }) => ({
				id,
				title: title || displayPounds(amount),
				detail: `${displayPounds(amount)}, ${displayDate(date)}`
			}));
	if (isOfQuote(kind))
		return db
			.select({ id: quotes.id, title: quotes.number, detail: quotes.customerName })
			.from(quotes)
			.where(and(isNotNull(quotes.number), has(quotes.number, quotes.customerName, quotes.title)))
			.orderBy(desc(quotes.id))
			.limit(FOUND)
			.all()
			.map((row) => ({ ...row, title: row.title! }));
	// Of visits and job sheets the example says what there is to say.
	if (kind === 'jobSheet' || kind.startsWith('visit')) return [];
	return db
		.select({ id: documents.id, title: documents.number, detail: documents.customerName })
		.from(documents)
		.where(
			and(
				eq(documents.state, 'issued'),
				isNotNull(documents.number),
				...(kind === 'text'
					? []
					: [eq(documents.kind, kind === 'creditNote' ? 'creditNote' : 'invoice')]),
				has(documents.number, documents.customerName)
			)
		)
		.orderBy(desc(documents.id))
		.limit(FOUND)
		.all()
		.map((row) => ({ id: row.id, title: row.title!, detail: row.detail ?? '' }));
}

/** @throws NotFoundError */
export function fieldsFor(world: World, kind: WordingKind, id: number | null): Values {
	if (id === null) return EXAMPLE;
	const { db } = world;
	if (kind === 'statement') {
		const voice = voiceFor(db, id);
		const known = db.select({ id: customers.id }).from(customers).where(eq(customers.id, id)).get();
		if (!known) throw new NotFoundError('This customer');
		const asOf = world.clock.today();
		const { view } = buildStatement(world, id, readStatementOptions({ style: 'openItems', asOf }));
		return statementValues(view, loadBusiness(db), payerOf(db, id), voice);
	}
	if (kind === 'receipt') {
		const known = db.select({ id: payments.id }).from(payments).where(eq(payments.id, id)).get();
		const found = known && receiptFor(db, id);
		if (!found) throw new NotFoundError('This payment');
		return receiptValues(found.receipt, voiceFor(db, found.payerId));
	}
	if (isOfQuote(kind)) return fieldsOfQuote(db, kind, id);
	const row = db.select().from(documents).where(eq(documents.id, id)).get();
	if (!row?.frozen || !row.number) throw new NotFoundError('This document');
	const { payable } = frozenFigures(row.frozen);
	const open = db
		.select({ toPay: openItems.toPay })
		.from(openItems)
		.where(eq(openItems.documentId, id))
		.get();
	const voice = voiceFor(db, greetedOf(row.frozen));
	return documentValues(
		row.frozen,
		row.number,
		payable,
		open ? BigInt(open.toPay) : payable,
		voice
	);
}

/** As it was sent, or as it was accepted. */
function fieldsOfQuote(db: Reader, kind: WordingKind, id: number): Values {
	const version = newestVersion(db, id);
	const row = db.select().from(quotes).where(eq(quotes.id, id)).get();
	if (!version || !row?.number) throw new NotFoundError('This quote');
	const { frozen, validUntil } = version;
	const quote = asSent(frozen);
	const agreed = kind === 'accepted' || kind === 'depositRequest';
	return quoteValues(
		frozen,
		{
			number: row.number,
			validUntil,
			quote,
			...(agreed
				? { accepted: { total: quote.figures.total, deposit: quote.deposit, cancel: '' } }
				: {})
		},
		voiceFor(db, greetedOf(frozen))
	);
}
