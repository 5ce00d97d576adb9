// Photos and files, beside the data file: each under the hash of what it holds, written once and never changed, so that all backups share one copy.
import { createHash, randomBytes } from 'node:crypto';
import {
	closeSync,
	existsSync,
	fsyncSync,
	mkdirSync,
	openSync,
	readFileSync,
	renameSync,
	rmSync,
	writeSync
} from 'node:fs';
import { dirname, join } from 'node:path';
import type Sqlite from 'better-sqlite3';

/** Where a data folder, or a folder of backups, has its files. */
export const filesFolder = (folder: string): string => join(folder, 'files');

/** Where in such a folder the file with this hash lies. */
export const placeOf = (folder: string, hash: string): string =>
	join(filesFolder(folder), hash.slice(0, 2), hash);

type Opened = { $client: Pick<Sqlite.Database, 'name'> };

/** The folder of all that belongs to these books: the data file, its photos and files, its secrets. */
export const folderOf = (db: Opened): string => dirname(db.$client.name);

/** Puts bytes down for good and says under which hash. The same bytes again are there already. What no row names is swept away later. */
export function storeFile(db: Opened, bytes: Uint8Array): string {
	const hash = createHash('sha256').update(bytes).digest('hex');
	const place = placeOf(folderOf(db), hash);
	if (!existsSync(place)) putDown(place, bytes);
	return hash;
}

/** Whole or not at all, whatever happens meanwhile. */
export function putDown(place: string, bytes: Uint8Array): void {
	mkdirSync(dirname(place), { recursive: true, mode: 0o700 });
	const work = `${place}.${randomBytes(6).toString('hex')}`;
	const handle = openSync(work, 'w', 0o600);
	try {
		for (let at = 0; at < bytes.length;) at += writeSync(handle, bytes, at);
		fsyncSync(handle);
	} catch (error) {
		closeSync(handle);
		rmSync(work, { force: true });
		throw error;
	}
	closeSync(handle);
	renameSync(work, place);
}

/** Undefined where it is not there any more: somebody took it away from outside. */
export function storedFile(db: Opened, hash: string): Buffer | undefined {
	try {
		return readFileSync(placeOf(folderOf(db), hash));
	} catch {
		return undefined;
	}
}

/** Files of a time when they lay within the data file move out of it. Done again, it goes on where it was. */
export function moveFilesOut(db: Opened & { $client: Sqlite.Database }): void {
	const { $client: client } = db;
	const next = client.prepare('select id, content from files where content is not null limit 1');
	const moved = client.prepare('update files set stored = ?, content = null where id = ?');
	for (;;) {
		const row = next.get() as { id: number; content: Buffer } | undefined;
		if (!row) return;
		moved.run(storeFile(db, row.content), row.id);
	}
}
