// What every check of the audit reads with. It knows the data file alone, and nothing of the app.
import type Sqlite from 'better-sqlite3';

export type DataFile = Sqlite.Database;

/** All rows of a query, as the check names them. */
export function rowsOf<Row>(file: DataFile, query: string, ...values: (string | number)[]): Row[] {
	return file.prepare(query).all(...values) as Row[];
}

/** One check: what differs, in words, with the document it is about. */
export type Check = (file: DataFile) => string[];
