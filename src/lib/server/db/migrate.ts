// Brings the file to the current schema at start. A copy is put aside first, and is put back if it fails.
import { copyFileSync, existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { z } from 'zod';

export class MigrationError extends Error {}

const journalFile = z.object({ entries: z.array(z.object({ when: z.number(), tag: z.string() })) });

function pendingMigrations(file: string, folder: string): string[] {
	const { entries } = journalFile.parse(
		JSON.parse(readFileSync(join(folder, 'meta/_journal.json'), 'utf8'))
	);
	const client = new Sqlite(file);
	try {
		const known = client
			.prepare("SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'")
			.get();
		const last = known
			? (client.prepare('SELECT max(created_at) AS at FROM __drizzle_migrations').get() as {
					at: number | null;
				})
			: null;
		return entries.filter((entry) => entry.when > (last?.at ?? 0)).map((entry) => entry.tag);
	} finally {
		client.close();
	}
}

/**
 * Migrates the database file. `stamp` names the copy that is put aside.
 * @throws MigrationError where a migration failed; the file is then as it was before.
 */
export function migrateFile(file: string, folder: string, stamp: string): void {
	const existed = existsSync(file);
	mkdirSync(dirname(file), { recursive: true });
	const pending = pendingMigrations(file, folder);
	if (pending.length === 0) return;

	let copy: string | null = null;
	if (existed) {
		copy = join(dirname(file), 'backups', `before-${pending.at(-1)}-${stamp}.sqlite`);
		mkdirSync(dirname(copy), { recursive: true });
		rmSync(copy, { force: true });
		const source = new Sqlite(file);
		source.prepare('VACUUM INTO ?').run(copy);
		source.close();
	}
	const client = new Sqlite(file);
	client.pragma('journal_mode = WAL');
	try {
		migrate(drizzle(client), { migrationsFolder: folder });
		client.close();
	} catch (error) {
		client.close();
		for (const end of ['', '-wal', '-shm']) rmSync(`${file}${end}`, { force: true });
		if (copy) copyFileSync(copy, file);
		const reason =
			error instanceof Error
				? error.cause instanceof Error
					? error.cause.message
					: error.message
				: String(error);
		throw new MigrationError(
			`The data file could not be brought to this version (${pending.join(', ')}): ${reason}. ` +
				(copy ? `It is as it was before; a copy is at ${copy}. ` : '') +
				'Start the version of Axiometer you had before, or ask for help with that copy.'
		);
	}
}
