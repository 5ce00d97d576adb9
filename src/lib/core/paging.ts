// Paging by key: a page is what comes after a row, or before it, in the order of the list. Any page costs the same.

export interface Cursor {
	way: 'after' | 'before';
	/** What the list is ordered by, of the row at the edge. */
	key: string;
	/** Tells rows of one key apart. */
	id: number;
}

/** A place in a list as it stands in an address: `2026-11-03_17`. */
const PLACE = /^(.{0,200})_(\d{1,15})$/s;

/** Where an address wants a list to go on; null for its beginning, and for anything that is no place. */
export function readCursor(params: { get(name: string): string | null }): Cursor | null {
	for (const way of ['after', 'before'] as const) {
		const found = PLACE.exec(params.get(way) ?? '');
		if (found) return { way, key: found[1]!, id: Number(found[2]) };
	}
	return null;
}

export interface Page<Row> {
	rows: Row[];
	/** Places from which the list goes on in either direction; null where it ends. */
	before: string | null;
	after: string | null;
}

/**
 * A page out of at most `size + 1` rows that were read from the cursor on, in its direction: the one beyond the page only
 * tells that there is more.
 */
export function pageOf<Row>(
	read: readonly Row[],
	size: number,
	cursor: Cursor | null,
	placeOf: (row: Row) => { key: string; id: number }
): Page<Row> {
	const back = cursor?.way === 'before';
	const more = read.length > size;
	const rows = back ? read.slice(0, size).reverse() : read.slice(0, size);
	const place = (row: Row | undefined) => {
		if (!row) return null;
		const { key, id } = placeOf(row);
		return `${key}_${id}`;
	};
	return {
		rows,
		before: (back ? more : cursor !== null) ? place(rows[0]) : null,
		after: (back ? true : more) ? place(rows.at(-1)) : null
	};
}
