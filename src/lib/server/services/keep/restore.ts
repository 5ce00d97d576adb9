// Restoring a backup: it is opened, looked through and made ready beside the data, and takes its place in one step. Nothing that is there is lost by it.
import { spawnSync } from 'node:child_process';
import {
	closeSync,
	existsSync,
	fsyncSync,
	mkdirSync,
	openSync,
	readSync,
	renameSync,
	rmSync,
	statSync
} from 'node:fs';
import { rm } from 'node:fs/promises';
import { basename, dirname, join, resolve } from 'node:path';
import Sqlite from 'better-sqlite3';
import { backupName, readBackupName } from '../../../core/keep/names';
import { audited } from '../../aside';
import { connect } from '../../db/connection';
import { moveFilesOut, placeOf } from '../../db/fileStore';
import { migrateFile } from '../../db/migrate';
import { restores } from '../../db/schema';
import { markClaimed } from '../business/claim';
import { ownPlace } from './backups';
import { removalsIn, removeAgain } from './removal';
import { backupsIn, copyWhole, fileIn, type Backup } from './place';
import { keysOf, SealError, unseal, type KeyMaker } from './seal';

/** What cannot be restored, in words. */
export class RestoreError extends Error {}

/** What is in a backup, before anything is done with it. */
export interface BackupLook {
	business: string;
	/** When it was made, milliseconds. */
	madeAt: number;
	customers: number;
	jobs: number;
	issued: number;
	drafts: number;
	payments: number;
	/** The last number of each series. */
	last: { kind: string; number: string }[];
	files: number;
	/** Files that lie neither with the backup nor with the data. */
	missing: string[];
	/** Where the books in it differ from themselves. */
	found: number;
}

/** A backup that was opened and made ready in the data folder; `swapIn` puts it in place. */
export interface Ready extends BackupLook {
	work: string;
	/** Where its photos and files lie. */
	place: string;
	keys: KeyMaker | null;
}

const workIn = (dataFolder: string): string => join(dataFolder, 'restoring.sqlite');
const SQLITE = 'SQLite format 3\0';

function beginning(file: string, length: number): string {
	const handle = openSync(file, 'r');
	try {
		const bytes = Buffer.alloc(length);
		readSync(handle, bytes, 0, length, 0);
		return bytes.toString('latin1');
	} finally {
		closeSync(handle);
	}
}

export const isSealed = (file: string): boolean => beginning(file, 8) === 'AXSEAL1\n';

async function clear(work: string): Promise<void> {
	for (const end of ['', '-wal', '-shm', '-journal', '.part'])
		await rm(`${work}${end}`, { force: true });
}

/**
 * Opens a backup beside the data and looks through it. Nothing of the data is touched. `place` is where its photos and files lie: its own folder, unless it
 * came from somewhere else.
 * @throws RestoreError
 */
export async function openBackup(
	file: string,
	dataFolder: string,
	passphrase: string,
	migrations: string,
	now: number,
	place = dirname(file)
): Promise<Ready> {
	if (!existsSync(file) || !statSync(file).isFile())
		throw new RestoreError(`There is no file ${file}.`);
	const work = workIn(dataFolder);
	mkdirSync(dataFolder, { recursive: true, mode: 0o700 });
	await clear(work);
	const sealed = isSealed(file);
	if (sealed && !passphrase)
		throw new RestoreError('This backup is sealed: it takes its passphrase.');
	const keys = sealed ? keysOf(passphrase) : null;
	try {
		if (keys) await unseal(file, work, keys);
		else await copyWhole(file, work);
		if (beginning(work, SQLITE.length) !== SQLITE)
			throw new RestoreError('This is no backup of Axiometer.');
		const look = lookInto(work, dataFolder, place, readBackupName(basename(file))?.madeAt, file);
		// An older backup is brought to this version; of a newer one it is said that this version cannot read it.
		migrateFile(work, migrations, now, false);
		return { ...look, found: (await audited(['--without-files', work])).length, work, place, keys };
	} catch (error) {
		await clear(work);
		if (error instanceof RestoreError) throw error;
		if (error instanceof SealError) throw new RestoreError(error.message);
		if (error instanceof Error && error.name === 'SqliteError')
			throw new RestoreError(`This backup is damaged: ${error.message}.`);
		throw error;
	}
}

function lookInto(
	work: string,
	dataFolder: string,
	place: string,
	named: number | undefined,
	file: string
): Omit<BackupLook, 'found'> {
	const copy = new Sqlite(work);
	try {
		if (copy.pragma('quick_check(1)', { simple: true }) !== 'ok')
			throw new RestoreError('This backup is damaged: its pages do not fit together.');
		const tables = copy
			.prepare("select name from sqlite_master where type = 'table'")
			.pluck()
			.all();
		for (const needed of ['business', 'documents', 'journal_entries', '__drizzle_migrations'])
			if (!tables.includes(needed)) throw new RestoreError('This is no backup of Axiometer.');
		const one = (query: string) => copy.prepare(query).pluck().get();
		const count = (table: string, where = '1') =>
			Number(one(`select count(*) from ${table} where ${where}`));
		const hashes = storedHashes(copy);
		return {
			business: String(
				one("select coalesce(nullif(trading_name, ''), owner_name) from business") ?? 'nobody yet'
			),
			madeAt: named ?? statSync(file).mtimeMs,
			customers: count('customers'),
			jobs: count('jobs'),
			issued: count('documents', "state = 'issued'"),
			drafts: count('documents', "state <> 'issued'"),
			payments: count('payments'),
			last: copy
				.prepare(
					// Beside max(), SQLite takes the other columns from the row that has it.
					`select kind, number, max(id) from documents where state = 'issued' and running is not null
					 group by kind order by kind desc`
				)
				.all() as BackupLook['last'],
			files: hashes.length,
			missing: hashes.filter(
				(hash) => !fileIn(place, hash) && !existsSync(placeOf(dataFolder, hash))
			)
		};
	} finally {
		copy.close();
	}
}

/**
 * Brings its files, marks it as restored, and puts it in the place of the data; what was there is kept as a backup. Whoever calls holds the folder, and
 * has closed the data file. @returns the name of the backup of what was there
 */
export async function swapIn(ready: Ready, dataFile: string, now: number): Promise<string | null> {
	const dataFolder = dirname(dataFile);
	await bringFiles(ready, dataFolder);
	const db = connect(ready.work);
	try {
		moveFilesOut(db);
		// Who was signed in then is nobody now.
		db.$client.exec(
			'delete from sessions; delete from known_browsers; delete from sign_in_failures'
		);
		removeAgain(db, [...removalsIn(dataFolder), ...removalsIn(ready.place)]);
		db.insert(restores)
			.values({ madeAt: ready.madeAt, restoredAt: now, missing: ready.missing })
			.run();
		db.$client.pragma('journal_mode = DELETE');
	} finally {
		db.$client.close();
	}
	const kept = existsSync(dataFile) ? keep(dataFile, now) : null;
	for (const end of ['-wal', '-shm', '-journal']) rmSync(`${dataFile}${end}`, { force: true });
	const handle = openSync(ready.work, 'r');
	fsyncSync(handle);
	closeSync(handle);
	renameSync(ready.work, dataFile);
	markClaimed(dataFolder);
	return kept;
}

/** A copy of what was there, whole where it can be read, else as it is. */
function keep(dataFile: string, now: number): string {
	const own = ownPlace(dirname(dataFile));
	mkdirSync(own, { recursive: true, mode: 0o700 });
	const name = backupName(now, 'hand', false);
	const made = spawnSync(process.execPath, ['scripts/copy.mjs', dataFile, join(own, name)]);
	if (made.status === 0) return name;
	// It cannot be read any more; somebody may still want to try.
	const aside = `${name}.damaged`;
	renameSync(dataFile, join(own, aside));
	return aside;
}

/** The hashes of all photos and files that a data file names, also one from before there were files of other things than jobs. */
function storedHashes(copy: Sqlite.Database): string[] {
	for (const table of ['files', 'job_files']) {
		const columns = copy.pragma(`table_info(${table})`) as { name: string }[];
		if (columns.some(({ name }) => name === 'stored'))
			return copy
				.prepare(`select distinct stored from ${table} where stored is not null`)
				.pluck()
				.all() as string[];
	}
	return [];
}

/** Photos and files come from the place of the backup, where the data folder has them not. */
async function bringFiles(ready: Ready, dataFolder: string): Promise<void> {
	const copy = new Sqlite(ready.work, { readonly: true });
	const hashes = storedHashes(copy);
	copy.close();
	for (const hash of hashes) {
		const target = placeOf(dataFolder, hash);
		const source = fileIn(ready.place, hash);
		if (existsSync(target) || !source) continue;
		if (!source.endsWith('.sealed')) await copyWhole(source, target);
		else if (ready.keys) {
			mkdirSync(dirname(target), { recursive: true, mode: 0o700 });
			await unseal(source, target, ready.keys);
		}
	}
}

/** What was made ready and is not wanted. */
export const forget = (dataFolder: string): Promise<void> => clear(workIn(dataFolder));

/** Backups that lie on this machine where they are looked for: beside the data. */
export async function restorable(dataFolder: string): Promise<(Backup & { path: string })[]> {
	const place = resolve(ownPlace(dataFolder));
	const found = await backupsIn(place);
	return found.slice(0, 12).map((one) => ({ ...one, path: join(place, one.name) }));
}
