// Secrets at rest: under a key that lies beside the data file and comes into no backup, so that a copy of the books gives none of them away.
import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { eq } from 'drizzle-orm';
import type { Database } from './connection';
import { putDown } from './fileStore';
import { secrets } from './schema';

const KEY_FILE = 'key';
const IV = 12;
const TAG = 16;

/** The key of the folder, made when it is first needed. Null where there is none and none is to be made. */
function keyOf(db: Database, make: boolean): Buffer | null {
	const file = join(dirname(db.$client.name), KEY_FILE);
	if (existsSync(file)) return Buffer.from(readFileSync(file, 'utf8').trim(), 'base64');
	if (!make) return null;
	const key = randomBytes(32);
	putDown(file, Buffer.from(`${key.toString('base64')}\n`));
	return key;
}

/** Keeps a secret under a name; null forgets it. */
export function keepSecret(db: Database, name: string, value: Buffer | null): void {
	if (value === null) {
		db.delete(secrets).where(eq(secrets.name, name)).run();
		return;
	}
	const iv = randomBytes(IV);
	const cipher = createCipheriv('aes-256-gcm', keyOf(db, true)!, iv);
	// A secret cannot be put under another one's name.
	cipher.setAAD(Buffer.from(name));
	const sealed = Buffer.concat([iv, cipher.update(value), cipher.final(), cipher.getAuthTag()]);
	db.insert(secrets)
		.values({ name, sealed })
		.onConflictDoUpdate({ target: secrets.name, set: { sealed } })
		.run();
}

/** Null where there is none, or where it cannot be read: the books came here without their key. */
export function secretOf(db: Database, name: string): Buffer | null {
	const row = db.select().from(secrets).where(eq(secrets.name, name)).get();
	const key = row && keyOf(db, false);
	if (!row || !key) return null;
	try {
		const { sealed } = row;
		const decipher = createDecipheriv('aes-256-gcm', key, sealed.subarray(0, IV));
		decipher.setAAD(Buffer.from(name));
		decipher.setAuthTag(sealed.subarray(-TAG));
		return Buffer.concat([decipher.update(sealed.subarray(IV, -TAG)), decipher.final()]);
	} catch {
		return null;
	}
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
