// One SQLite file, opened so that what was acknowledged survives a crash.
import Sqlite from 'better-sqlite3';
import { drizzle, type BetterSQLite3Database } from 'drizzle-orm/better-sqlite3';
import { keptStatements } from './statements';

export type Database = BetterSQLite3Database & { $client: Sqlite.Database };

/** What runs inside `db.transaction`. */
export type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

/** `synchronous` is FULL wherever what is written has to survive a power cut. */
export function connect(file: string, synchronous: 'FULL' | 'OFF' = 'FULL'): Database {
	const client = new Sqlite(file);
	client.pragma('journal_mode = WAL');
	client.pragma(`synchronous = ${synchronous}`);
	client.pragma('foreign_keys = ON');
	client.pragma('busy_timeout = 5000');
	return Object.assign(drizzle(keptStatements(client)), { $client: client });
}

/** What reads: the connection, or a transaction that is open. */
export type Reader = Database | Transaction;

/** Runs `work` in a transaction that takes the write lock at once, so that nothing it read can change. */
export function writeAtOnce<T>(db: Database, work: (tx: Transaction) => T): T {
	return db.transaction(work, { behavior: 'immediate' });
}
