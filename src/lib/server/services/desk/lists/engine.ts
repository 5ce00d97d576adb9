// Reads any list as somebody chose it: a page by key, what it adds up to, and all of it as CSV. A list is a spec and where each
// of its fields is found.
import { sql, type SQL } from 'drizzle-orm';
import { stringify } from 'csv-stringify/sync';
import { londonDate, londonMoment } from '../../../../core/calendar/conversion';
import { addDays } from '../../../../core/calendar/manipulation';
import type { PlainDate } from '../../../../core/calendar/types';
import { safeCell } from '../../../../core/formats/cells';
import { dayMeant, fieldOf } from '../../../../core/lists/address';
import type { Filter, ListField, ListSpec, ListView } from '../../../../core/lists/types';
import { formatMoney } from '../../../../core/money/decimal';
import { pageOf, type Cursor } from '../../../../core/paging';
import type { World } from '../../../world';

type At = { today: PlainDate };
type Read = (at: At) => SQL;

export interface ListSource {
	spec: ListSpec;
	/** Where its rows are, with what is joined to them. */
	from: SQL;
	/** The whole number that tells rows apart. */
	id: SQL;
	/** What every row of it fulfils. */
	base: SQL;
	/** Where each field is found. Nothing is null. */
	fields: Readonly<Record<string, Read>>;
	/** By what a field's order goes, where an index has it; never null. */
	order?: Readonly<Record<string, SQL>>;
	/** How the keys of a view are read whose filters leave only rows that an index has in that order. */
	indexedFor?: (view: ListView) => OwnOrder | null;
	/** Filters that are asked in another way than by the field's value. */
	asked?: Readonly<Record<string, (filter: Filter, at: At) => SQL>>;
	search: (typed: string) => SQL | null;
	/** What a shown row also brings, for its cells. */
	more?: Readonly<Record<string, Read>>;
	/** Where a row leads; `more` is empty where only its number is known. */
	href: (id: number, more: Record<string, Cell>) => string;
	/** What rows are called, by their numbers. */
	names: (world: World, ids: readonly number[]) => Map<number, string>;
}

interface OwnOrder {
	key: SQL;
	id: SQL;
	from: SQL;
	/** What the rows of that index fulfil. */
	base: SQL;
}

export type Cell = string | number | null;
export interface ListRow {
	id: number;
	cells: Record<string, Cell>;
	more: Record<string, Cell>;
}

export const PAGE_SIZE = 50;

const numeric = (field: ListField) =>
	field.type === 'money' || field.type === 'number' || field.type === 'yes' || field.moment;

/** What comes before everything, where a field says nothing. */
const NOTHING = -9_000_000_000_000_000;

/** Words stand in the order of their letters, large or small; of long ones the beginning goes into an address. */
const text = (read: SQL) => sql`lower(substr(coalesce(${read}, ''), 1, 120))`;

function orderOf(source: ListSource, view: ListView, at: At): OwnOrder & { field: ListField } {
	const field = fieldOf(source.spec, view.sort.field)!;
	const own = source.indexedFor?.(view);
	if (own) return { field, ...own };
	const indexed = source.order?.[field.id];
	const read = source.fields[field.id]!(at);
	return {
		field,
		id: source.id,
		from: source.from,
		base: source.base,
		key: indexed ?? (numeric(field) ? sql`coalesce(${read}, ${NOTHING})` : text(read))
	};
}

/** Letters that mean something to `like` mean themselves. */
export const containing = (typed: string) =>
	`%${typed.replace(/[\\%_]/g, (letter) => `\\${letter}`)}%`;

/** Rows whose words hold every word that was typed; null for none typed. */
export function everyWord(typed: string, words: SQL): SQL | null {
	const asked = typed.slice(0, 200).split(/\s+/).filter(Boolean).slice(0, 8);
	if (asked.length === 0) return null;
	return sql.join(
		asked.map((word) => sql`(${words}) like ${containing(word)} escape '\\'`),
		sql` and `
	);
}

/** What rows of a table are called, where that stands in the table itself. */
export const named =
	(table: string, name: SQL): ListSource['names'] =>
	(world, ids) =>
		new Map(
			world.db
				.all<{ id: number; name: string }>(
					sql`select id, ${name} as name from ${sql.identifier(table)} where id in (${sql.join(
						ids.map((id) => sql`${id}`),
						sql`, `
					)})`
				)
				.map((row) => [row.id, row.name])
		);

function condition(source: ListSource, filter: Filter, at: At): SQL {
	const other = source.asked?.[filter.field];
	if (other) return other(filter, at);
	const field = fieldOf(source.spec, filter.field)!;
	const read = source.fields[filter.field]!(at);
	const { how, value } = filter;
	const day = () => dayMeant(value, at.today);
	switch (how) {
		case 'has':
			return sql`${read} like ${containing(value)} escape '\\'`;
		case 'is':
			return sql`${read} in (${sql.join(
				value.split(',').map((one) => sql`${one}`),
				sql`, `
			)})`;
		case 'not':
			return sql`coalesce(${read}, '') not in (${sql.join(
				value.split(',').map((one) => sql`${one}`),
				sql`, `
			)})`;
		case 'from':
			return field.moment
				? sql`${read} >= ${londonMoment(`${day()}T00:00`)}`
				: sql`${read} >= ${day()}`;
		case 'to':
			return field.moment
				? sql`${read} < ${londonMoment(`${addDays(day(), 1)}T00:00`)}`
				: sql`${read} <= ${day()}`;
		case 'least':
			return sql`${read} >= ${Number(value)}`;
		case 'most':
			return sql`${read} <= ${Number(value)}`;
		case 'yes':
			return sql`coalesce(${read}, 0) <> 0`;
		case 'no':
			return sql`coalesce(${read}, 0) = 0`;
	}
}

/** What every row that is asked for fulfils; null where nothing can. */
function wheres(source: ListSource, view: ListView, at: At): SQL[] | null {
	const found = view.search.trim() === '' ? null : source.search(view.search);
	if (view.search.trim() !== '' && !found) return null;
	return [
		source.base,
		...(found ? [found] : []),
		...view.filters.map((filter) => condition(source, filter, at))
	];
}

interface Key {
	id: number;
	key: string;
}

function readKeys(
	world: World,
	source: ListSource,
	view: ListView,
	cursor: Cursor | null,
	size: number
): Key[] {
	const at = { today: world.clock.today() };
	const where = wheres(source, view, at);
	if (!where) return [];
	const { key, id, from, base, field } = orderOf(source, view, at);
	const down = view.sort.down !== (cursor?.way === 'before');
	const edge = cursor && (numeric(field) ? Number(cursor.key) : cursor.key);
	const beyond = cursor
		? [sql`(${key}, ${id}) ${down ? sql`<` : sql`>`} (${edge}, ${cursor.id})`]
		: [];
	const way = down ? sql`desc` : sql`asc`;
	return world.db
		.all<{ id: number; key: string | number }>(
			sql`select ${source.id} as id, ${key} as key from ${from}
				where ${sql.join([base, ...where, ...beyond], sql` and `)}
				order by ${key} ${way}, ${id} ${way} limit ${size + 1}`
		)
		.map((row) => ({ id: row.id, key: String(row.key) }));
}

/** The rows with these numbers, in their order. */
function readRows(world: World, source: ListSource, columns: readonly string[], ids: number[]) {
	if (ids.length === 0) return [];
	const at = { today: world.clock.today() };
	const reads: [string, SQL][] = [
		...columns.map((id): [string, SQL] => [`c_${id}`, source.fields[id]!(at)]),
		...Object.entries(source.more ?? {}).map(([id, read]): [string, SQL] => [`m_${id}`, read(at)])
	];
	const rows = world.db.all<{ id: number } & Record<string, Cell>>(
		sql`select ${source.id} as id, ${sql.join(
			reads.map(([name, read]) => sql`${read} as ${sql.identifier(name)}`),
			sql`, `
		)} from ${source.from} where ${source.id} in (${sql.join(
			ids.map((id) => sql`${id}`),
			sql`, `
		)})`
	);
	const byId = new Map(rows.map((row) => [row.id, row]));
	const part = (row: Record<string, Cell>, mark: string) =>
		Object.fromEntries(
			Object.entries(row).flatMap(([name, cell]) =>
				name.startsWith(mark) ? [[name.slice(mark.length), cell]] : []
			)
		);
	return ids.flatMap((id): ListRow[] => {
		const row = byId.get(id);
		return row ? [{ id, cells: part(row, 'c_'), more: part(row, 'm_') }] : [];
	});
}

/** A page of the list. */
export function readList(
	world: World,
	source: ListSource,
	view: ListView,
	cursor: Cursor | null,
	size = PAGE_SIZE
) {
	const keys = readKeys(world, source, view, cursor, size);
	const page = pageOf(keys, size, cursor, (row) => row);
	const ids = page.rows.map((row) => row.id);
	const { before, after } = page;
	return { before, after, rows: readRows(world, source, view.columns, ids) };
}

/** All rows that match, by their numbers, in no order. */
export function idsOfList(world: World, source: ListSource, view: ListView): number[] {
	const where = wheres(source, view, { today: world.clock.today() });
	if (!where) return [];
	return world.db
		.all<{ id: number }>(
			sql`select ${source.id} as id from ${source.from} where ${sql.join(where, sql` and `)}`
		)
		.map((row) => row.id);
}

export interface ListSums {
	count: number;
	/** By field, in pence. */
	sums: Record<string, number>;
}

/** What all that matches comes to. */
export function sumList(world: World, source: ListSource, view: ListView): ListSums {
	const at = { today: world.clock.today() };
	const where = wheres(source, view, at);
	const summed = source.spec.fields.filter((field) => field.sum);
	if (!where) return { count: 0, sums: Object.fromEntries(summed.map(({ id }) => [id, 0])) };
	const row = world.db.get<Record<string, number>>(
		sql`select ${sql.join(
			[
				sql`count(*) as n`,
				...summed.map(({ id }) => sql`total(${source.fields[id]!(at)}) as ${sql.identifier(id)}`)
			],
			sql`, `
		)} from ${source.from} where ${sql.join(where, sql` and `)}`
	)!;
	return {
		count: row.n!,
		sums: Object.fromEntries(summed.map(({ id }) => [id, row[id]!]))
	};
}

/** A cell as it stands in a file: amounts and days as programs read them. */
function written(field: ListField, cell: Cell): string {
	if (cell === null) return '';
	if (field.type === 'money') return formatMoney(BigInt(cell));
	if (field.type === 'yes') return cell ? 'yes' : 'no';
	if (field.type === 'choice') return field.choices?.[String(cell)] ?? String(cell);
	if (field.moment) return londonDate(Number(cell));
	return field.type === 'number' ? String(cell) : safeCell(String(cell));
}

/** So many are read at a time: whoever asks for something else meanwhile waits for no more. */
const CSV_ROWS = 150;

/** Exactly what is shown, of all that matches: its columns in its order. */
export function* listCsv(world: World, source: ListSource, view: ListView): Generator<string> {
	const fields = view.columns.map((id) => fieldOf(source.spec, id)!);
	yield stringify([fields.map((field) => field.head ?? field.label)]);
	for (let cursor: Cursor | null = null; ;) {
		const keys = readKeys(world, source, view, cursor, CSV_ROWS);
		const page = keys.slice(0, CSV_ROWS);
		const rows = readRows(
			world,
			source,
			view.columns,
			page.map((row) => row.id)
		);
		if (rows.length)
			yield stringify(
				rows.map(({ cells }) => fields.map((field) => written(field, cells[field.id]!)))
			);
		const last = page.at(-1);
		if (keys.length <= CSV_ROWS || !last) return;
		cursor = { way: 'after', ...last };
	}
}
