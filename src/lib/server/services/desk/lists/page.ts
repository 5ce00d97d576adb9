// What the page of any list shows: the view its address asks for, a page of rows, what all of it comes to, the views there are.
import { sql } from 'drizzle-orm';
import {
	fieldOf,
	readFilterValue,
	readView,
	writeFilter,
	writeView
} from '../../../../core/lists/address';
import { HOWS, type How, type ListView } from '../../../../core/lists/types';
import { readCursor } from '../../../../core/paging';
import type { World } from '../../../world';
import { viewsOf } from '../../business/views';
import { readList, sumList } from './engine';
import type { ListSource } from './where';

/** Beyond so many rows what all of it comes to is asked for once the page is there. */
const SUMMED_AT_ONCE = 5_000;

export interface Adding {
	field: string;
	how: string;
	value: string;
	wrong: string;
}

/**
 * A filter that is being added through the boxes `ff`, `fh` and `fv`: the address with it, or what is wrong with it; null
 * where none is.
 */
export function addedFilter(
	source: ListSource,
	url: URL,
	today: string
): { address: string } | Adding | null {
	const given = url.searchParams;
	const id = given.get('ff');
	if (id === null) return null;
	const value = given.getAll('fv').join(',').slice(0, 300);
	const field = fieldOf(source.spec, id);
	const hows: readonly string[] = field && field.filter !== false ? HOWS[field.type] : [];
	const how = given.get('fh') ?? '';
	if (!field || hows.length === 0)
		return { field: id.slice(0, 40), how, value, wrong: 'Choose what to filter by.' };
	// A question that belongs to another field: the first of this one.
	const asked = (hows.includes(how) ? how : hows[0]) as How;
	const read = readFilterValue(field, asked, value, today);
	if (read === null) {
		const words = {
			text: 'Write some letters of it.',
			day: 'Write a day such as 24 Nov, or -7 for a week ago.',
			money: 'Write an amount such as 250.',
			number: 'Write a whole number.',
			choice: 'Choose at least one.',
			yes: ''
		};
		return { field: field.id, how: asked, value, wrong: words[field.type] };
	}
	const next = new URLSearchParams(given);
	for (const name of ['ff', 'fh', 'fv', 'before', 'after']) next.delete(name);
	const view = readView(source.spec, next);
	const filter = { field: field.id, how: asked, value: read };
	const others = view.filters.filter((one) => writeFilter(one) !== writeFilter(filter));
	const written = writeView(source.spec, { ...view, filters: [...others, filter] });
	return { address: `${url.pathname}?${written}` };
}

/** So many are offered; more than that are searched for by their letters. */
const MOST_OFFERED = 200;

/** Of fields whose values the owner made up, those there are: labels, and kinds of work. */
function offeredIn({ db }: World, { spec }: ListSource): Record<string, string[]> {
	const labelsOf = (table: string) =>
		sql`select distinct e.value as name from ${sql.identifier(table)} t, json_each(t.labels) e`;
	const asked: Readonly<Record<string, ReturnType<typeof sql>>> = {
		label:
			spec.name === 'invoices'
				? sql`select distinct label as name from document_labels`
				: labelsOf(spec.name),
		customerLabel: labelsOf('customers'),
		workKind: sql`select name from work_kinds`,
		income: sql`select name from line_tags where sort = 'income'`,
		centre: sql`select name from line_tags where sort = 'centre'`
	};
	return Object.fromEntries(
		Object.entries(asked).flatMap(([id, query]) =>
			fieldOf(spec, id)
				? [
						[
							id,
							db
								.all<{ name: string }>(sql`${query} order by name limit ${MOST_OFFERED}`)
								.map(({ name }) => name)
						]
					]
				: []
		)
	);
}

/** How many rows the list has at all, said quickly. */
export type Size = (world: World) => number;

export function listPage(world: World, source: ListSource, url: URL, size: Size) {
	const { spec } = source;
	const view = readView(spec, url.searchParams);
	const at = (one: ListView) => writeView(spec, one).toString();
	const written = at(view);
	const plain = (filters: ListView['filters'], sort = spec.sort): ListView => ({
		search: '',
		filters,
		sort,
		columns: spec.columns
	});
	const kept = viewsOf(world.db, spec.name);
	return {
		view,
		written,
		offered: offeredIn(world, source),
		...readList(world, source, view, readCursor(url.searchParams)),
		sums: size(world) > SUMMED_AT_ONCE ? null : sumList(world, source, view),
		views: [
			...spec.views.map(({ id, label, filters, sort }) => ({
				key: id,
				label,
				address: id === spec.views[0]!.id && filters.length === 0 ? '' : `view=${id}`,
				here: at(plain(filters, sort)) === written,
				kept: null
			})),
			...kept.map(({ id, name, address, by, mine }) => ({
				by,
				key: `kept ${id}`,
				label: name,
				address,
				here: address === written && address !== '',
				kept: mine ? id : null
			}))
		],
		today: world.clock.today()
	};
}
