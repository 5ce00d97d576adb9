// One server for a folder: it is held as long as the process lives, and let go by the system itself when it dies.
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import Sqlite from 'better-sqlite3';

/** What is held must be kept hold of: a connection that nothing knows any more is closed, and its lock with it. */
const held = new Set<Sqlite.Database>();

/** Another server works with the folder. */
export class HeldError extends Error {}

/**
 * Holds a data folder for this process. A lock of the operating system on a file of its own does it: it needs no tidying up, however the process ends.
 * @returns lets it go
 * @throws HeldError
 */
export function holdFolder(folder: string): () => void {
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
	held.add(file);
	return () => {
		held.delete(file);
		file.close();
	};
}
