// Brings the file to the current schema at start. A copy is put aside first, and is put back if it fails.
import { copyFileSync, existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Sqlite from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { z } from 'zod';

export class MigrationError extends Error {}

const journalFile = z.object({ entries: z.array(z.object({ when: z.number(), tag: z.string() })) });

/**
 * What is still to be done to a file, in order.
 * @throws MigrationError for a file of another line of versions, before anything is touched
 */
function pendingMigrations(file: string, folder: string): string[] {
	const { entries } = journalFile.parse(
		JSON.parse(readFileSync(join(folder, 'meta/_journal.json'), 'utf8'))
	);
	if (!existsSync(file)) return entries.map((entry) => entry.tag);
	const client = new Sqlite(file, { readonly: true });
	try {
		const known = client
			.prepare("SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations'")
			.get();
		const applied = known
			? (client
					.prepare('SELECT created_at FROM __drizzle_migrations ORDER BY created_at')
					.pluck()
					.all() as number[])
			: [];
		if (applied.some((at, index) => entries[index]?.when !== at))
			throw new MigrationError(
				`The data file ${file} was written by another version of Axiometer, which this one cannot read. ` +
					'Nothing was changed in it. Start the version that wrote it.'
			);
		return entries.slice(applied.length).map((entry) => entry.tag);
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
