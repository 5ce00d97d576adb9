// Lists of documents, and one document with everything known about it.
import { and, asc, desc, eq, gt, inArray, lt, ne, sql, type SQL } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import type { DocumentDetail } from '../../../core/documents/detail';
import { documents, documentFiles, mails, openItems, refunds } from '../../db/schema';
import type { World } from '../../world';
import { inHandOf } from '../ledger/inHand';
import { mailAddresses } from '../customers/parts';
import { NotFoundError } from '../../../core/refusals';
import { frozenFigures, frozenView } from '../invoices/freeze';
import { lateChargeOf } from '../owed/lateCharges';
import { mailsOf } from '../messages/outbox';
import { paymentsOf } from '../money/payments';
import { searchExpression } from '../trail/search';
import { stillToPay } from '../../../core/settlement/position';
import { paperTrail } from '../trail/documents';

export const LIST_STATES = ['all', 'draft', 'unpaid', 'late', 'paid', 'credited'] as const;
export type ListState = (typeof LIST_STATES)[number];
export const LIST_AGES = ['any', '1-30', '31-60', '61-90', 'over90'] as const;
export type ListAge = (typeof LIST_AGES)[number];

export interface ListQuery {
	state: ListState;
	age: ListAge;
	search: string;
	customerId: number | null;
	/** From 1. */
	page: number;
}

export const PAGE_SIZE = 50;

export function listDocuments(world: World, query: ListQuery) {
	const today = world.clock.today();
	const where = and(...conditions(query, today));
	const { db } = world;
	const rows = db
		.select({
			id: documents.id,
			kind: documents.kind,
			state: documents.state,
			number: documents.number,
			customerId: documents.customerId,
			customerName: documents.customerName,
			issueDate: documents.issueDate,
			dueDate: documents.dueDate,
			total: documents.total,
			updatedAt: documents.updatedAt,
			deduction: openItems.deduction,
			cash: openItems.cash,
			withheld: openItems.withheld,
			credited: openItems.credited,
			writtenOff: openItems.writtenOff,
			outstanding: openItems.outstanding,
			settlement: openItems.state,
			settledOn: openItems.settledOn
		})
		.from(documents)
		.leftJoin(openItems, eq(openItems.documentId, documents.id))
		.where(where)
		.orderBy(...order(query))
		.limit(PAGE_SIZE + 1)
		.offset((query.page - 1) * PAGE_SIZE)
		.all();
	const page = rows.slice(0, PAGE_SIZE);
	const troubled = mailTrouble(
		world,
		page.map((row) => row.id)
	);
	return {
		rows: page.map((row) => ({
			...row,
			toPay:
				row.outstanding === null
					? 0
					: stillToPay({
							outstanding: row.outstanding,
							deduction: row.deduction,
							withheld: row.withheld ?? 0
						}),
			mailTrouble: troubled.has(row.id)
		})),
		more: rows.length > PAGE_SIZE,
		today
	};
}
export type ListRow = ReturnType<typeof listDocuments>['rows'][number];

function order({ state }: ListQuery): SQL[] {
	if (state === 'late' || state === 'unpaid') return [asc(openItems.dueDate), asc(documents.id)];
	if (state === 'draft') return [desc(documents.updatedAt)];
	return [desc(documents.sortDate), desc(documents.id)];
}

function conditions(
	{ state, age, search, customerId }: ListQuery,
	today: string
): (SQL | undefined)[] {
	const open = inArray(openItems.state, ['open', 'partPaid']);
	const expression = searchExpression(search);
	const byState: Record<ListState, SQL | undefined> = {
		// Almost every row: said so that the order's index is walked, and nothing is sorted.
		all: ne(documents.state, 'discarded'),
		draft: eq(documents.state, 'draft'),
		unpaid: open,
		late: and(open, lt(openItems.dueDate, today)),
		paid: eq(openItems.state, 'paid'),
		credited: sql`(${openItems.state} = 'credited' or ${documents.kind} = 'creditNote')`
	};
	return [
		byState[state],
		customerId === null ? undefined : eq(documents.customerId, customerId),
		expression === null
			? undefined
			: sql`${documents.id} in (select rowid from document_search where words match ${expression})`,
		ageCondition(age, today, open)
	];
}

function ageCondition(age: ListAge, today: string, open: SQL): SQL | undefined {
	if (age === 'any') return undefined;
	const [from, to] = { '1-30': [1, 30], '31-60': [31, 60], '61-90': [61, 90], over90: [91, null] }[
		age
	] as [number, number | null];
	return and(
		open,
		lt(openItems.dueDate, addDays(today, 1 - from)),
		to === null ? undefined : gt(openItems.dueDate, addDays(today, -to - 1))
	);
}

function mailTrouble(world: World, ids: number[]): Set<number> {
	if (ids.length === 0) return new Set();
	const rows = world.db
		.select({ id: mails.documentId })
		.from(mails)
		.where(and(inArray(mails.documentId, ids), inArray(mails.state, ['failed', 'unsure'])))
		.all();
	return new Set(rows.map((row) => row.id!));
}

/** How many documents there are in each state, for the filter. */
export function countByState(world: World): Record<ListState, number> {
	const today = world.clock.today();
	const one = (query: SQL) => world.db.get<{ n: number }>(query).n;
	const open = sql`select count(*) as n from open_items where state in ('open', 'partPaid')`;
	return {
		all: one(sql`select count(*) as n from documents where state in ('draft', 'issued')`),
		draft: one(sql`select count(*) as n from documents where state = 'draft'`),
		unpaid: one(open),
		late: one(sql`${open} and due_date < ${today}`),
		paid: one(sql`select count(*) as n from open_items where state = 'paid'`),
		credited: one(
			sql`select (select count(*) from open_items where state = 'credited') + (select count(*) from documents where kind = 'creditNote' and state = 'issued') as n`
		)
	};
}

/** An issued document with its figures, workings, settlement, messages and paper trail. */
export function documentDetail(world: World, id: number): DocumentDetail {
	const { db } = world;
	const row = db.select().from(documents).where(eq(documents.id, id)).get();
	if (!row || row.state !== 'issued' || !row.frozen || !row.number)
		throw new NotFoundError('This document');
	const item = db.select().from(openItems).where(eq(openItems.documentId, id)).get() ?? null;
	const creditedBy = db
		.select({ id: documents.id, number: documents.number })
		.from(documents)
		.where(and(eq(documents.correctsId, id), eq(documents.state, 'issued')))
		.all();
	const corrects =
		row.correctsId === null
			? null
			: (db
					.select({ id: documents.id, number: documents.number })
					.from(documents)
					.where(eq(documents.id, row.correctsId))
					.get() ?? null);
	return {
		id,
		kind: row.kind,
		number: row.number,
		customerId: row.customerId,
		customerName: row.customerName,
		frozen: row.frozen,
		figures: frozenFigures(row.frozen),
		view: frozenView(row.frozen, row.number, 'issued'),
		issueDate: row.issueDate!,
		dueDate: row.dueDate!,
		total: row.total,
		link: `${world.origin}/p/${row.token}`,
		item,
		toPay: item ? stillToPay(item) : 0,
		refunded: item ? refundedOf(world, id) : 0,
		payments: paymentsOf(world, id),
		mails: mailsOf(world, id),
		trail: paperTrail(world, id),
		creditedBy,
		corrects,
		claim: lateChargeOf(world, id),
		inHand:
			item && stillToPay(item) > 0
				? inHandOf(db, item.payerId).reduce((sum, credit) => sum + credit.amount, 0)
				: 0,
		payerMail: item ? (mailAddresses(db, item.payerId)[0] ?? '') : '',
		today: world.clock.today()
	};
}

function refundedOf(world: World, id: number): number {
	return world.db
		.select({ amount: sql<number>`coalesce(sum(${refunds.amount}), 0)` })
		.from(refunds)
		.where(eq(refunds.documentId, id))
		.get()!.amount;
}

/** Which document it is, without loading it. */
export function documentState(world: World, id: number): 'draft' | 'issued' | null {
	const row = world.db
		.select({ state: documents.state })
		.from(documents)
		.where(eq(documents.id, id))
		.get();
	return row && row.state !== 'discarded' ? row.state : null;
}

export function storedPdf(world: World, id: number): { name: string; content: Buffer } | null {
	return (
		world.db
			.select({ name: documentFiles.name, content: documentFiles.content })
			.from(documentFiles)
			.where(eq(documentFiles.documentId, id))
			.get() ?? null
	);
}
