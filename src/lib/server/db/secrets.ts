// Secrets at rest: under a key that lies beside the data file and comes into no backup, so that a copy of the books gives none of them away.
import { createCipheriv, createDecipheriv, randomBytes, scryptSync } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { eq } from 'drizzle-orm';
import type { Database } from './connection';
import { folderOf, putDown } from './fileStore';
import { secrets } from './schema';

const KEY_FILE = 'key';
const IV = 12;
const TAG = 16;

/** The key file itself may be sealed with a passphrase: `AXKEY1:` and then salt, nonce, sealed key and tag. */
const SEALED = 'AXKEY1:';
const SALT = 16;
/** What a guess at any passphrase costs: 128 MB and a good part of a second. */
export const GUESS_COST = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 1024 * 1024 };

/** The key file takes a passphrase that was not given, or not this one. */
export class LockedError extends Error {}

const fileIn = (folder: string): string => join(folder, KEY_FILE);
const written = (folder: string): string | null =>
	existsSync(fileIn(folder)) ? readFileSync(fileIn(folder), 'utf8').trim() : null;

export const isKeySealed = (folder: string): boolean =>
	written(folder)?.startsWith(SEALED) ?? false;

/** Keys of folders whose key file is sealed, once the passphrase was given. */
const unlocked = new Map<string, Buffer>();

const derived = (passphrase: string, salt: Buffer): Buffer =>
	scryptSync(passphrase.normalize('NFC'), salt, 32, GUESS_COST);

/** Takes the passphrase of a sealed key file, once for a process; does nothing for one that is not. @throws LockedError */
export function unlockKey(folder: string, passphrase: string | undefined): void {
	const text = written(folder);
	if (!text?.startsWith(SEALED)) return;
	if (!passphrase)
		throw new LockedError(
			'Axiometer did not start: its key takes a passphrase. Start it where it can ask, or give it as AXIOMETER_PASSPHRASE.'
		);
	const packed = Buffer.from(text.slice(SEALED.length), 'base64');
	const [salt, rest] = [packed.subarray(0, SALT), packed.subarray(SALT)];
	const key = opened(derived(passphrase, salt), rest, KEY_FILE);
	if (!key)
		throw new LockedError('Axiometer did not start: that is not the passphrase of its key.');
	unlocked.set(resolve(folder), key);
}

/** Seals the key file with a passphrase, or, with null, opens it for good. It must be unlocked. @throws LockedError */
export function sealKeyFile(folder: string, passphrase: string | null): void {
	const key = keyIn(folder, true)!;
	if (passphrase === null) {
		putDown(fileIn(folder), Buffer.from(`${key.toString('base64')}\n`));
		return;
	}
	const salt = randomBytes(SALT);
	const packed = Buffer.concat([salt, sealedWith(derived(passphrase, salt), key, KEY_FILE)]);
	putDown(fileIn(folder), Buffer.from(`${SEALED}${packed.toString('base64')}\n`));
	unlocked.set(resolve(folder), key);
}

/** The key of a folder, made when it is first needed. Null where there is none and none is to be made. */
function keyIn(folder: string, make: boolean): Buffer | null {
	const text = written(folder);
	if (text?.startsWith(SEALED)) {
		const key = unlocked.get(resolve(folder));
		if (!key) throw new LockedError('The key takes a passphrase.');
		return key;
	}
	if (text) return Buffer.from(text, 'base64');
	if (!make) return null;
	const key = randomBytes(32);
	putDown(fileIn(folder), Buffer.from(`${key.toString('base64')}\n`));
	return key;
}

/** Sealed under a name: it cannot be put under another one. */
function sealedWith(key: Buffer, value: Buffer, name: string): Buffer {
	const iv = randomBytes(IV);
	const cipher = createCipheriv('aes-256-gcm', key, iv);
	cipher.setAAD(Buffer.from(name));
	return Buffer.concat([iv, cipher.update(value), cipher.final(), cipher.getAuthTag()]);
}

function opened(key: Buffer, sealed: Buffer, name: string): Buffer | null {
	try {
		const decipher = createDecipheriv('aes-256-gcm', key, sealed.subarray(0, IV));
		decipher.setAAD(Buffer.from(name));
		decipher.setAuthTag(sealed.subarray(-TAG));
		return Buffer.concat([decipher.update(sealed.subarray(IV, -TAG)), decipher.final()]);
	} catch {
		return null;
	}
}

/** Keeps a secret under a name; null forgets it. */
export function keepSecret(db: Database, name: string, value: Buffer | null): void {
	if (value === null) {
		db.delete(secrets).where(eq(secrets.name, name)).run();
		return;
	}
	const sealed = sealedWith(keyIn(folderOf(db), true)!, value, name);
	db.insert(secrets)
		.values({ name, sealed })
		.onConflictDoUpdate({ target: secrets.name, set: { sealed } })
		.run();
}

/** Null where there is none, or where it cannot be read: the books came here without their key. */
export function secretOf(db: Database, name: string): Buffer | null {
	const row = db.select().from(secrets).where(eq(secrets.name, name)).get();
	const key = row && keyIn(folderOf(db), false);
	return row && key ? opened(key, row.sealed, name) : null;
}

/** Names of those that are kept and cannot be read here. */
export function lostSecrets(db: Database): string[] {
	return db
		.select({ name: secrets.name })
		.from(secrets)
		.all()
		.map(({ name }) => name)
		.filter((name) => secretOf(db, name) === null);
}
