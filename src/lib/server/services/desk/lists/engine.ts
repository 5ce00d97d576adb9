// Reads any list as somebody chose it: a page by key, what it adds up to, and all of it as CSV. A list is a spec and where each
// of its fields is found.
import { sql, type SQL } from 'drizzle-orm';
import { stringify } from 'csv-stringify/sync';
import { londonDate } from '../../../../core/calendar/conversion';
import { safeCell } from '../../../../core/formats/cells';
import { fieldOf } from '../../../../core/lists/address';
import type { ListField, ListView } from '../../../../core/lists/types';
import { formatMoney } from '../../../../core/money/decimal';
import { pageOf, type Cursor } from '../../../../core/paging';
import type { World } from '../../../world';
import { type ListSource, numeric, orderOf, wheres, type Cell } from './where';

export interface ListRow {
	id: number;
	cells: Record<string, Cell>;
	more: Record<string, Cell>;
}

export const PAGE_SIZE = 50;

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
