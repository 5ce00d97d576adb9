// Brings the file to the current schema at start: on a copy, which takes its place when all went well.
import {
	closeSync,
	copyFileSync,
	existsSync,
	fsyncSync,
	mkdirSync,
	openSync,
	readFileSync,
	renameSync,
	rmSync
} from 'node:fs';
import { dirname, join } from 'node:path';
import { spawnSync } from 'node:child_process';
import Sqlite from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { z } from 'zod';
import { backupName } from '../../core/keep/names';

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

/** Puts a file's name and content on the disk before anything builds on it. */
function settle(path: string): void {
	const handle = openSync(path, 'r');
	try {
		fsyncSync(handle);
	} catch {
		// Folders cannot be put down everywhere; the file then comes with the next of its writes.
	} finally {
		closeSync(handle);
	}
}

/** A backup before anything is changed, looked through. A process of its own makes it: there is no other work yet that it could keep waiting. */
function backUp(file: string, to: string): void {
	mkdirSync(dirname(to), { recursive: true, mode: 0o700 });
	const work = `${to}.part`;
	rmSync(work, { force: true });
	const made = spawnSync(process.execPath, ['scripts/copy.mjs', file, work], { encoding: 'utf8' });
	if (made.status !== 0) {
		rmSync(work, { force: true });
		throw new MigrationError(
			`The data file has to be brought to this version, and no backup could be made before: ${made.stderr.trim().slice(0, 500)}. Nothing was changed.`
		);
	}
	settle(work);
	renameSync(work, to);
	settle(dirname(to));
}

/**
 * Migrates the database file: a copy is brought to the new version, and takes the file's place when all of it went well. `moment` names the backup of
 * the old version, which is made unless `keep` says that it is one itself. Whoever calls holds the folder (`holdFolder`): nothing is written to the file meanwhile.
 * @throws MigrationError where a migration failed; the file was not touched then.
 */
export function migrateFile(file: string, folder: string, moment: number, keep = true): void {
	const existed = existsSync(file);
	mkdirSync(dirname(file), { recursive: true });
	const pending = pendingMigrations(file, folder);
	if (pending.length === 0) return;

	const work = `${file}.new`;
	const remove = (path: string) => {
		for (const end of ['', '-wal', '-shm', '-journal']) rmSync(`${path}${end}`, { force: true });
	};
	remove(work);
	let copy: string | null = null;
	if (existed && !keep) copyFileSync(file, work);
	else if (existed) {
		copy = join(dirname(file), 'backups', backupName(moment, 'update', false));
		backUp(file, copy);
		copyFileSync(copy, work);
	}
	const client = new Sqlite(work);
	try {
		migrate(drizzle(client), { migrationsFolder: folder });
		client.close();
	} catch (error) {
		client.close();
		remove(work);
		const reason =
			error instanceof Error
				? error.cause instanceof Error
					? error.cause.message
					: error.message
				: String(error);
		throw new MigrationError(
			`The data file could not be brought to this version (${pending.join(', ')}): ${reason}. ` +
				(copy ? `It was not touched; a copy is at ${copy}. ` : '') +
				'Start the version of Axiometer you had before, or ask for help with that copy.'
		);
	}
	settle(work);
	// What the old file still has beside it belongs to it alone.
	for (const end of ['-wal', '-shm']) rmSync(`${file}${end}`, { force: true });
	renameSync(work, file);
	settle(dirname(file));
}
