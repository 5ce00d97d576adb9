// One server for a folder: it is held as long as the process lives, and let go by the system itself when it dies.
import { mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import Sqlite from 'better-sqlite3';

/**
 * What is held must be kept hold of: a connection that nothing knows any more is closed, and its lock with it. By folder: the same process may ask
 * again, as a server does whose code is loaded anew while it is written.
 */
const held = new Map<string, Sqlite.Database>();

/** Another server works with the folder. */
export class HeldError extends Error {}

/**
 * Holds a data folder for this process. A lock of the operating system on a file of its own does it: it needs no tidying up, however the process ends.
 * @returns lets it go
 * @throws HeldError
 */
export function holdFolder(folder: string): () => void {
	const name = resolve(folder);
	if (held.has(name)) return () => letGo(name);
	mkdirSync(folder, { recursive: true, mode: 0o700 });
	const file = new Sqlite(join(folder, 'in-use'), { timeout: 0 });
	try {
		file.pragma('locking_mode = EXCLUSIVE');
		file.exec('begin exclusive');
	} catch (error) {
		file.close();
		if (!(error instanceof Sqlite.SqliteError) || !error.code.startsWith('SQLITE_BUSY'))
			throw error;
		throw new HeldError(
			`Axiometer did not start: another one works with the folder ${folder} already. Two would send everything twice.`
		);
	}
	held.set(name, file);
	return () => letGo(name);
}

function letGo(name: string): void {
	held.get(name)?.close();
	held.delete(name);
}
