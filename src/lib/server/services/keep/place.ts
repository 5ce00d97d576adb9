// A place where backups lie: a folder with the data files by name, a list beside each of the photos and files it is about, and those files once for all.
import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync } from 'node:fs';
import { chmod, mkdir, open, readdir, readFile, rename, rm, stat } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { PassThrough, type Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { listName, readBackupName, type BackupName } from '../../../core/keep/names';
import { thinned } from '../../../core/keep/thinning';
import { filesFolder, placeOf } from '../../db/fileStore';
import { sealing, type SealKey } from './seal';

export interface Backup extends BackupName {
	bytes: number;
}

/** What lies in a place, the newest first; nothing where there is no such folder. */
export async function backupsIn(folder: string): Promise<Backup[]> {
	const names = await readdir(folder).catch(() => []);
	const found: Backup[] = [];
	for (const one of names) {
		const name = readBackupName(one);
		if (name) found.push({ ...name, bytes: (await stat(join(folder, one))).size });
	}
	return found.sort((a, b) => b.madeAt - a.madeAt);
}

/** Copies a file whole or not at all, and has it on the disk before it bears its name. @returns the hash of what was read */
export async function copyWhole(
	from: string,
	to: string,
	through: Transform = new PassThrough()
): Promise<string> {
	const work = `${to}.part`;
	await mkdir(dirname(to), { recursive: true, mode: 0o700 });
	const hash = createHash('sha256');
	try {
		await pipeline(
			createReadStream(from),
			async function* (source) {
				for await (const chunk of source as AsyncIterable<Buffer>) {
					hash.update(chunk);
					yield chunk;
				}
			},
			through,
			createWriteStream(work, { mode: 0o600 })
		);
		await settle(work);
		await rename(work, to);
		await settle(dirname(to));
	} catch (error) {
		await rm(work, { force: true });
		throw error;
	}
	// A stick may know no rights.
	await chmod(to, 0o600).catch(() => undefined);
	return hash.digest('hex');
}

async function settle(path: string): Promise<void> {
	const handle = await open(path, 'r');
	await handle.sync().catch(() => undefined);
	await handle.close();
}

const SEALED = '.sealed';

/** Where a place has a file, sealed or not; undefined where it has none. */
export function fileIn(folder: string, hash: string): string | undefined {
	const plain = placeOf(folder, hash);
	return [plain, plain + SEALED].find((one) => existsSync(one));
}

/**
 * Puts files into a place that has them not yet. @returns those that are nowhere, or are not what their name says
 */
export async function putFiles(
	dataFolder: string,
	folder: string,
	hashes: readonly string[],
	seal: SealKey | null
): Promise<string[]> {
	const wrong: string[] = [];
	for (const hash of hashes) {
		const target = placeOf(folder, hash) + (seal ? SEALED : '');
		if (existsSync(target)) continue;
		const source = placeOf(dataFolder, hash);
		if (!existsSync(source)) {
			wrong.push(hash);
			continue;
		}
		const holds = await copyWhole(source, target, seal ? sealing(seal) : undefined);
		if (holds === hash) continue;
		await rm(target, { force: true });
		wrong.push(hash);
	}
	return wrong;
}

/** Which files a backup is about. */
export async function listOf(folder: string, name: string): Promise<string[]> {
	const text = await readFile(join(folder, listName(name)), 'utf8').catch(() => '');
	return text.split('\n').filter((line) => /^[0-9a-f]{64}$/.test(line));
}

/** Takes away the backups that can go, and the files that none of those that stay is about. */
export async function thin(folder: string): Promise<void> {
	const all = await backupsIn(folder);
	for (const { name } of thinned(all)) {
		await rm(join(folder, name), { force: true });
		await rm(join(folder, listName(name)), { force: true });
	}
	const staying = await backupsIn(folder);
	const needed = new Set<string>();
	for (const { name } of staying) {
		// One without a list may be about any of them.
		if (!existsSync(join(folder, listName(name)))) return;
		for (const hash of await listOf(folder, name)) needed.add(hash);
	}
	for (const place of await storedIn(folder))
		if (!needed.has(basename(place, SEALED))) await rm(place, { force: true });
}

/** All files of a folder, by their places. */
export async function storedIn(folder: string): Promise<string[]> {
	const top = filesFolder(folder);
	const shelves = await readdir(top).catch(() => []);
	const places: string[] = [];
	for (const shelf of shelves)
		for (const name of await readdir(join(top, shelf)).catch(() => []))
			if (/^[0-9a-f]{64}(\.sealed)?$/.test(name)) places.push(join(top, shelf, name));
	return places;
}
