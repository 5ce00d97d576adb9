// What the query builder asks SQLite to prepare, kept: a statement is read, checked and planned once, not at each of its uses. Every page asks the
// same dozens of them, and preparing took a sixth of what the server did.
import type Sqlite from 'better-sqlite3';

/** So many statements are kept; those with lists of values in them are many, and seldom the same. */
const KEPT = 500;

/** As much of a statement as the query builder uses. */
interface Rows {
	all(...given: unknown[]): unknown;
	get(...given: unknown[]): unknown;
}
interface Kept extends Rows {
	run(...given: unknown[]): unknown;
	raw(): Rows;
}

function keep(one: Sqlite.Statement): Kept {
	// How rows come is said at each use, since who used it before may have wanted them otherwise.
	const as = (raw: boolean) => (one.reader ? one.raw(raw) : one);
	const rows: Rows = {
		all: (...given) => as(true).all(...given),
		get: (...given) => as(true).get(...given)
	};
	return {
		run: (...given) => one.run(...given),
		all: (...given) => as(false).all(...given),
		get: (...given) => as(false).get(...given),
		raw: () => rows
	};
}

/**
 * A connection for the query builder, and for nothing else: one statement has one use at a time, so nothing that is read row by row while
 * something else goes on may come through here. `kept`: how many statements, those used longest ago going first.
 */
export function keptStatements(client: Sqlite.Database, kept: number = KEPT): Sqlite.Database {
	const known = new Map<string, Kept>();
	const prepare = (text: string): Kept => {
		const found = known.get(text) ?? keep(client.prepare(text));
		known.delete(text);
		known.set(text, found);
		if (known.size > kept) known.delete(known.keys().next().value!);
		return found;
	};
	return { prepare, transaction: client.transaction.bind(client) } as unknown as Sqlite.Database;
}
