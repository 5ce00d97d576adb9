// What the card stand-in remembers: checkouts, kept cards, refunds, and what is still to be paid out.
import Sqlite from 'better-sqlite3';

export function openStore(file: string): Sqlite.Database {
	const db = new Sqlite(file);
	db.pragma('journal_mode = WAL');
	db.exec(`CREATE TABLE IF NOT EXISTS checkouts (id TEXT PRIMARY KEY, key TEXT UNIQUE, amount INTEGER, description TEXT, return_url TEXT, webhook_url TEXT, state TEXT, keep INTEGER DEFAULT 0, number TEXT, pass_on INTEGER DEFAULT 0);
		CREATE TABLE IF NOT EXISTS cards (token TEXT PRIMARY KEY, number TEXT, charges INTEGER DEFAULT 0, forgotten INTEGER DEFAULT 0);
		CREATE TABLE IF NOT EXISTS refunds (id TEXT PRIMARY KEY, key TEXT UNIQUE, checkout TEXT, amount INTEGER);
		CREATE TABLE IF NOT EXISTS disputes (id TEXT PRIMARY KEY, checkout TEXT UNIQUE, respond_by TEXT, state TEXT);
		CREATE TABLE IF NOT EXISTS earned (checkout TEXT, type TEXT, amount INTEGER, fee INTEGER, at INTEGER, payout TEXT)`);
	return db;
}

/** Has a kept card known from the beginning, so that what was laid out with its token can be charged. */
export function knowCard(file: string, card: { token: string; number: string }): void {
	const db = openStore(file);
	db.prepare('INSERT OR IGNORE INTO cards (token, number) VALUES (?, ?)').run(
		card.token,
		card.number
	);
	db.close();
}
