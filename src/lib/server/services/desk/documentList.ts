// The list of documents: a page of it in one indexed read of keys and one of rows, and its counts kept by triggers.
import { and, eq, inArray, sql, type SQL } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import { pageOf, type Cursor } from '../../../core/paging';
import { documents, mails, openItems } from '../../db/schema';
import type { World } from '../../world';
import { searchExpression } from '../trail/search';

export const LIST_STATES = ['all', 'draft', 'unpaid', 'late', 'paid', 'credited'] as const;
export type ListState = (typeof LIST_STATES)[number];
export const LIST_AGES = ['any', '1-30', '31-60', '61-90', 'over90'] as const;
export type ListAge = (typeof LIST_AGES)[number];

export interface ListQuery {
	state: ListState;
	age: ListAge;
	search: string;
	customerId: number | null;
	/** Null: the first page. */
	cursor: Cursor | null;
}

export const PAGE_SIZE = 50;

interface Key {
	id: number;
	key: string;
}

export function listDocuments(world: World, query: ListQuery) {
	const today = world.clock.today();
	const page = pageOf(readKeys(world, query, today), PAGE_SIZE, query.cursor, (row) => row);
	const ids = page.rows.map((row) => row.id);
	const rows = new Map(loadRows(world, ids).map((row) => [row.id, row]));
	const troubled = mailTrouble(world, ids);
	return {
		before: page.before,
		after: page.after,
		rows: ids.map((id) => ({
			...rows.get(id)!,
			toPay: rows.get(id)!.toPay ?? 0,
			mailTrouble: troubled.has(id)
		})),
		today
	};
}
export type ListRow = ReturnType<typeof listDocuments>['rows'][number];

function loadRows(world: World, ids: number[]) {
	if (ids.length === 0) return [];
	return world.db
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
			currency: documents.currency,
			updatedAt: documents.updatedAt,
			deduction: openItems.deduction,
			cash: openItems.cash,
			withheld: openItems.withheld,
			credited: openItems.credited,
			writtenOff: openItems.writtenOff,
			outstanding: openItems.outstanding,
			toPay: openItems.toPay,
			settlement: openItems.state,
			settledOn: openItems.settledOn
		})
		.from(documents)
		.leftJoin(openItems, eq(openItems.documentId, documents.id))
		.where(inArray(documents.id, ids))
		.all();
}

/** Said as it stands in the partial index of what is open, which a bound value would not match. */
const OPEN = sql`o.state in ('open', 'partPaid')`;
const OPEN_ITEMS = sql`open_items o indexed by open_items_open`;

/**
 * The keys of a page and of one row more, in the order of the list. Written by hand, because each state is walked along an
 * index of its own, and because the search lies in a virtual table.
 */
function readKeys(world: World, query: ListQuery, today: string): Key[] {
	const { cursor } = query;
	const read = (source: SQL, order: { key: SQL; id: SQL; down: boolean }, where: SQL[]) => {
		const back = cursor?.way === 'before';
		const down = order.down !== back;
		const from = cursor
			? [sql`(${order.key}, ${order.id}) ${down ? sql`<` : sql`>`} (${cursor.key}, ${cursor.id})`]
			: [];
		const direction = down ? sql`desc` : sql`asc`;
		return world.db.all<Key>(
			sql`select ${order.id} as id, ${order.key} as key from ${source}
				where ${sql.join([...where, ...from], sql` and `)}
				order by ${order.key} ${direction}, ${order.id} ${direction} limit ${PAGE_SIZE + 1}`
		);
	};
	const documentFirst = sql`documents d left join open_items o on o.document_id = d.id`;
	const newest = { key: sql`d.sort_date`, id: sql`d.id`, down: true };
	const firstDue = { key: sql`o.due_date`, id: sql`o.document_id`, down: false };
	const expression = searchExpression(query.search);
	if (expression !== null) return searchKeys(world, query, expression, today);
	const whose = query.customerId === null ? [] : [sql`d.customer_id = ${query.customerId}`];
	const ages = ageConditions(query.age, today);
	const byDue = ages.length > 0 || query.state === 'late' || query.state === 'unpaid';
	const itemsFirst = whose.length
		? sql`open_items o join documents d on d.id = o.document_id`
		: sql`open_items o`;
	if (byDue)
		return read(whose.length ? itemsFirst : OPEN_ITEMS, firstDue, [
			OPEN,
			...whose,
			...ages,
			...stateConditions(query, today)
		]);
	if (query.state === 'draft')
		return read(sql`documents d`, { key: sql`d.updated_at`, id: sql`d.id`, down: true }, [
			sql`d.state = 'draft'`,
			...whose
		]);
	if (query.state === 'paid')
		return read(itemsFirst, { key: sql`o.issue_date`, id: sql`o.document_id`, down: true }, [
			sql`o.state = 'paid'`,
			...whose
		]);
	if (query.state === 'credited')
		return read(
			sql`(select d.id, d.sort_date, d.customer_id from documents d where d.kind = 'creditNote' and d.state = 'issued'
				union all select d.id, d.sort_date, d.customer_id from open_items o join documents d on d.id = o.document_id
				where o.state = 'credited') d`,
			newest,
			[sql`1`, ...whose]
		);
	// Almost every row: said so that the order's index is walked, and nothing is sorted.
	return read(whose.length ? documentFirst : sql`documents d`, newest, [
		sql`d.state <> 'discarded'`,
		...whose
	]);
}

/** What is found stands in the order it was made in, so that the index of words can be walked and left. */
function searchKeys(
	world: World,
	{ cursor, customerId, ...query }: ListQuery,
	expression: string,
	today: string
): Key[] {
	const back = cursor?.way === 'before';
	const where = [
		sql`document_search match ${expression}`,
		...(cursor ? [sql`document_search.rowid ${back ? sql`>` : sql`<`} ${cursor.id}`] : []),
		...(customerId === null ? [] : [sql`d.customer_id = ${customerId}`]),
		...ageConditions(query.age, today),
		...stateConditions({ ...query, customerId, cursor }, today)
	];
	return world.db.all<Key>(
		sql`select document_search.rowid as id, '' as key from document_search
			cross join documents d on d.id = document_search.rowid
			left join open_items o on o.document_id = d.id
			where ${sql.join(where, sql` and `)}
			order by document_search.rowid ${back ? sql`asc` : sql`desc`} limit ${PAGE_SIZE + 1}`
	);
}

function stateConditions({ state }: ListQuery, today: string): SQL[] {
	const byState: Record<ListState, SQL[]> = {
		all: [sql`1`],
		draft: [sql`d.state = 'draft'`],
		unpaid: [OPEN],
		late: [OPEN, sql`o.due_date < ${today}`],
		paid: [sql`o.state = 'paid'`],
		credited: [sql`(o.state = 'credited' or (d.kind = 'creditNote' and d.state = 'issued'))`]
	};
	return byState[state];
}

const AGES: Record<Exclude<ListAge, 'any'>, [from: number, to: number | null]> = {
	'1-30': [1, 30],
	'31-60': [31, 60],
	'61-90': [61, 90],
	over90: [91, null]
};

function ageConditions(age: ListAge, today: string): SQL[] {
	if (age === 'any') return [];
	const [from, to] = AGES[age];
	return [
		OPEN,
		sql`o.due_date < ${addDays(today, 1 - from)}`,
		...(to === null ? [] : [sql`o.due_date > ${addDays(today, -to - 1)}`])
	];
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

/** How many documents there are in each state, for the filter. Triggers keep the tallies; only lateness needs today. */
export function countByState(world: World): Record<ListState, number> {
	const tallies = new Map(
		world.db
			.all<{ name: string; n: number }>(sql`select name, n from tallies`)
			.map((row) => [row.name, row.n])
	);
	const of = (...names: string[]) => names.reduce((sum, name) => sum + (tallies.get(name) ?? 0), 0);
	const draft = of('invoice draft', 'creditNote draft');
	return {
		all: draft + of('invoice issued', 'creditNote issued'),
		draft,
		unpaid: of('item open', 'item partPaid'),
		late: world.db.get<{ n: number }>(
			sql`select count(*) as n from ${OPEN_ITEMS} where ${OPEN} and o.due_date < ${world.clock.today()}`
		)!.n,
		paid: of('item paid'),
		credited: of('item credited', 'creditNote issued')
	};
}
