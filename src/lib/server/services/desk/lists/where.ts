// Which rows a list has as somebody chose it: each filter as a condition, each order as a key.
import { sql, type SQL } from 'drizzle-orm';
import { londonMoment } from '../../../../core/calendar/conversion';
import { addDays } from '../../../../core/calendar/manipulation';
import type { PlainDate } from '../../../../core/calendar/types';
import { dayMeant, fieldOf } from '../../../../core/lists/address';
import type { Filter, ListField, ListSpec, ListView } from '../../../../core/lists/types';
import type { World } from '../../../world';

export type Cell = string | number | null;

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

export const numeric = (field: ListField) =>
	field.type === 'money' || field.type === 'number' || field.type === 'yes' || field.moment;

/** What comes before everything, where a field says nothing. */
const NOTHING = -9_000_000_000_000_000;

/** Words stand in the order of their letters, large or small; of long ones the beginning goes into an address. */
const text = (read: SQL) => sql`lower(substr(coalesce(${read}, ''), 1, 120))`;

export function orderOf(
	source: ListSource,
	view: ListView,
	at: At
): OwnOrder & { field: ListField } {
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
export function wheres(source: ListSource, view: ListView, at: At): SQL[] | null {
	const found = view.search.trim() === '' ? null : source.search(view.search);
	if (view.search.trim() !== '' && !found) return null;
	return [
		source.base,
		...(found ? [found] : []),
		...view.filters.map((filter) => condition(source, filter, at))
	];
}
