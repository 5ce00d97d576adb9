// Backups: whole copies of the books, made by themselves every night, looked through before they count, thinned, and put into a second place.
import { must } from '../../actor';
import { existsSync, statSync } from 'node:fs';
import { mkdir, rm, stat, writeFile } from 'node:fs/promises';
import { basename, isAbsolute, join, relative, resolve } from 'node:path';
import { desc, eq } from 'drizzle-orm';
import { londonTime } from '../../../core/calendar/conversion';
import { backupName, listName } from '../../../core/keep/names';
import { FieldError } from '../../../core/refusals';
import { counted } from '../../../core/words';
import { writeAtOnce, type Reader } from '../../db/connection';
import { folderOf } from '../../db/fileStore';
import { backups, backupSettings, files } from '../../db/schema';
import { keepSecret, secretOf } from '../../db/secrets';
import { forgetRemoved } from '../files/files';
import { audited, ran } from '../../aside';
import type { World } from '../../world';
import { checkPassword } from '../business/signIn';
import { removalsFile } from './removal';
import { copyWhole, listOf, putFiles, storedIn, thin } from './place';
import { packKey, sealing, sealKey, unpackKey, type SealKey } from './seal';

export const ownPlace = (dataFolder: string): string => join(dataFolder, 'backups');

export const SEAL_SECRET = 'backup key';
const NIGHT = { from: '02:00', to: '05:00' };
const HOUR = 3_600_000;
const DAY = 24 * HOUR;

export type BackupRow = typeof backups.$inferSelect;

export function backupSetting(db: Reader): { folder: string; sealed: boolean } {
	return db.select().from(backupSettings).get() ?? { folder: '', sealed: false };
}

export function lastBackup(db: Reader): BackupRow | undefined {
	return db.select().from(backups).orderBy(desc(backups.id)).limit(1).get();
}

/** The last one that is whole. */
export function lastWhole(db: Reader): BackupRow | undefined {
	return db
		.select()
		.from(backups)
		.orderBy(desc(backups.id))
		.limit(60)
		.all()
		.find((one) => one.endedAt !== null && one.problem === '');
}

let running: Promise<BackupRow> | null = null;

/** Makes a backup now, or joins the one that is being made. What goes wrong stands in its row. */
export function makeBackup(world: World, why: 'night' | 'hand'): Promise<BackupRow> {
	running ??= make(world, why).finally(() => (running = null));
	return running;
}

export const isMaking = (): boolean => running !== null;

async function make(world: World, why: 'night' | 'hand'): Promise<BackupRow> {
	const startedAt = world.clock.now();
	const { folder: second, sealed } = backupSetting(world.db);
	const name = backupName(startedAt, why, sealed);
	const { id } = world.db
		.insert(backups)
		.values({ startedAt, why, name })
		.returning({ id: backups.id })
		.get();
	const end = (result: Partial<BackupRow>): BackupRow =>
		world.db
			.update(backups)
			.set({ endedAt: world.clock.now(), ...result })
			.where(eq(backups.id, id))
			.returning()
			.get()!;
	const dataFolder = folderOf(world.db);
	const own = ownPlace(dataFolder);
	const work = join(own, 'making.sqlite');
	let made: { bytes: number; files: number; found: number };
	try {
		const seal = sealed ? sealOf(world) : null;
		await mkdir(own, { recursive: true, mode: 0o700 });
		await removeWork(work);
		await copied(world.db.$client.name, work);
		const hashes = await listOf(own, basename(work));
		const found = (await audited([work, dataFolder])).length;
		await putFiles(dataFolder, own, hashes, seal);
		await writeFile(join(own, listName(name)), hashes.map((hash) => `${hash}\n`).join(''), {
			mode: 0o600
		});
		await copyWhole(work, join(own, name), seal ? sealing(seal) : undefined);
		await copyRemovals(dataFolder, own);
		await thin(own);
		await sweep(world);
		made = { bytes: (await stat(join(own, name))).size, files: hashes.length, found };
	} catch (error) {
		return end({ problem: inWords(error, own) });
	} finally {
		await removeWork(work);
	}
	return end({ ...made, ...(second ? await toSecond(world, own, second, name) : {}) });
}

/** Copies one state of the books, with the list of the files it is about, in a process of its own: nobody waits. @throws where it is not whole */
async function copied(file: string, to: string): Promise<void> {
	const { status, complaint } = await ran(['scripts/copy.mjs', file, to]);
	if (status !== 0) throw new Error(complaint || 'the copy was broken off');
}

async function removeWork(work: string): Promise<void> {
	for (const end of ['', '-journal', '-wal', '-shm', '.files'])
		await rm(`${work}${end}`, { force: true });
}

/** The key with which backups are sealed. @throws where it was lost, rather than that one lies there open */
function sealOf(world: World): SealKey {
	const packed = secretOf(world.db, SEAL_SECRET);
	if (!packed) throw new LostKeyError();
	return unpackKey(packed);
}
class LostKeyError extends Error {}

/** The second place must be there: a folder that is made where a stick should hang is on no stick. */
async function toSecond(
	world: World,
	own: string,
	second: string,
	name: string
): Promise<Partial<BackupRow>> {
	try {
		if (!statSync(second).isDirectory()) return { secondProblem: `${second} is no folder` };
		const { sealed } = backupSetting(world.db);
		const files = (await storedIn(own)).filter((place) => place.endsWith('.sealed') === sealed);
		for (const place of files.map((one) => relative(own, one)))
			if (!existsSync(join(second, place))) await copyWhole(join(own, place), join(second, place));
		await copyWhole(join(own, listName(name)), join(second, listName(name)));
		await copyWhole(join(own, name), join(second, name));
		await copyRemovals(own, second);
		await thin(second);
		return { secondAt: world.clock.now() };
	} catch (error) {
		return { secondProblem: inWords(error, second) };
	}
}

/** Whoever restores from there must not bring back what was removed since. */
async function copyRemovals(from: string, to: string): Promise<void> {
	if (existsSync(removalsFile(from))) await copyWhole(removalsFile(from), removalsFile(to));
}

/** Files that no row names, and that no press of this minute is about to name. */
async function sweep(world: World): Promise<void> {
	forgetRemoved(world);
	const named = new Set(
		world.db
			.selectDistinct({ stored: files.stored })
			.from(files)
			.all()
			.map((row) => row.stored)
	);
	for (const place of await storedIn(folderOf(world.db))) {
		const hash = place.slice(-64);
		if (named.has(hash)) continue;
		const { birthtimeMs, mtimeMs } = await stat(place);
		// The disk's own time, whatever day the books are at.
		const youngest = statSync(world.db.$client.name).mtimeMs - DAY;
		if (Math.max(birthtimeMs, mtimeMs) < youngest) await rm(place, { force: true });
	}
}

/** What went wrong, for the owner. */
function inWords(error: unknown, place: string): string {
	if (error instanceof LostKeyError)
		return 'the passphrase is not known here any more: enter it again';
	const code = (error as NodeJS.ErrnoException).code ?? '';
	if (code === 'ENOSPC' || code === 'SQLITE_FULL') return `there is no room left at ${place}`;
	if (code === 'ENOENT') return `${place} is not there`;
	if (
		code === 'EACCES' ||
		code === 'EPERM' ||
		code === 'EROFS' ||
		code === 'SQLITE_READONLY' ||
		code === 'SQLITE_CANTOPEN'
	)
		return `Axiometer may not write at ${place}`;
	return error instanceof Error ? error.message.slice(0, 300) : 'it was broken off';
}

/** Makes one by night, and by day where the last is more than a day old; what failed is tried again after an hour. */
export function runNightlyBackup(world: World): Promise<unknown> {
	if (running || !isTime(world)) return running ?? Promise.resolve();
	return makeBackup(world, 'night');
}

function isTime(world: World): boolean {
	const now = world.clock.now();
	const last = lastBackup(world.db);
	if (last && last.problem !== '' && Math.abs(now - last.startedAt) < HOUR) return false;
	const whole = lastWhole(world.db);
	const age = whole ? now - whole.startedAt : Infinity;
	const time = londonTime(now);
	// A clock that went back makes ages below zero: those are as good as new.
	if (time >= NIGHT.from && time < NIGHT.to) return age > 20 * HOUR;
	return age > (whole ? DAY + 6 * HOUR : DAY) && (whole !== undefined || booksAreOld(world));
}

/** Whether there is anything from before yesterday that could be lost. */
function booksAreOld(world: World): boolean {
	const first = world.db.$client
		.prepare("select issued_at from documents where state = 'issued' order by id limit 1")
		.pluck()
		.get() as number | undefined;
	return first !== undefined && world.clock.now() - first > DAY;
}

/** Where the second place is, and whether all are sealed. @throws FieldError */
export async function saveBackupSetting(
	world: World,
	given: { folder: string; sealed: boolean; passphrase: string; again: string }
): Promise<void> {
	must('owner');
	const folder = given.folder.trim() && resolve(given.folder.trim());
	const data = resolve(folderOf(world.db));
	if (folder) {
		if (!isAbsolute(given.folder.trim()))
			throw new FieldError({
				folder: 'Write the whole way to the folder, from the / at its beginning.'
			});
		if (!existsSync(folder) || !statSync(folder).isDirectory())
			throw new FieldError({ folder: 'There is no such folder on this machine just now.' });
		if (!relative(data, folder).startsWith('..'))
			throw new FieldError({
				folder: 'That lies within the data folder: whoever loses one loses the other.'
			});
		try {
			await writeFile(join(folder, '.axiometer'), 'Axiometer puts backups here.\n');
		} catch (error) {
			throw new FieldError({ folder: `${inWords(error, folder)}.` });
		}
	}
	const known = secretOf(world.db, SEAL_SECRET) !== null;
	let packed: Buffer | null | undefined;
	if (!given.sealed) packed = null;
	else if (given.passphrase || !known) {
		try {
			checkPassword(given.passphrase);
		} catch (problem) {
			if (!(problem instanceof FieldError)) throw problem;
			throw new FieldError({ passphrase: problem.fields.password! });
		}
		if (given.passphrase !== given.again)
			throw new FieldError({ again: 'The two are not the same.' });
		packed = packKey(await sealKey(given.passphrase));
	}
	const values = { folder, sealed: given.sealed, updatedAt: world.clock.now() };
	writeAtOnce(world.db, (tx) => {
		tx.insert(backupSettings)
			.values({ id: 1, ...values })
			.onConflictDoUpdate({ target: backupSettings.id, set: values })
			.run();
		if (packed !== undefined) keepSecret(world.db, SEAL_SECRET, packed);
	});
}

/** Whether the last whole one is more than two days old. */
export const isOld = (world: World, whole: BackupRow): boolean =>
	world.clock.now() - whole.startedAt > 2 * DAY;

/** In words: what is wrong with the last one, or empty. */
export function backupTrouble(world: World): string {
	const last = lastBackup(world.db);
	if (last?.problem) return `The last one failed: ${last.problem}.`;
	if (last?.secondProblem) return `It is not in the second place: ${last.secondProblem}.`;
	if (last?.found)
		return `The books in it differ from themselves in ${counted(last.found, 'place')}.`;
	return '';
}
