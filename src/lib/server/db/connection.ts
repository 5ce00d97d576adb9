// One SQLite file, opened so that what was acknowledged survives a crash.
import Sqlite from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import * as schema from './schema';

export type Database = BetterSQLite3Database<typeof schema> & { $client: Sqlite.Database };

/** What runs inside `db.transaction`. */
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

export function connect(file: string): Database {
	const client = new Sqlite(file);
	client.pragma('journal_mode = WAL');
	client.pragma('synchronous = FULL');
	client.pragma('foreign_keys = ON');
	client.pragma('busy_timeout = 5000');
	return drizzle(client, { schema });
}

/** What reads: the connection, or a transaction that is open. */
export type Reader = Database | Transaction;

/** Runs `work` in a transaction that takes the write lock at once, so that nothing it read can change. */
export function writeAtOnce<T>(db: Database, work: (tx: Transaction) => T): T {
	return db.transaction(work, { behavior: 'immediate' });
}
