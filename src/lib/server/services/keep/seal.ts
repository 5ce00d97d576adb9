// Sealed files: AES-256-GCM under a key made of a passphrase by scrypt. What was altered, cut or sealed with another passphrase is not opened.
import {
	createCipheriv,
	createDecipheriv,
	randomBytes,
	scrypt,
	type ScryptOptions
} from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { open, rm } from 'node:fs/promises';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import { GUESS_COST } from '../../db/secrets';

/** `AXSEAL1`, then the salt of the key, the nonce of this file, what it holds, and the tag over all of it. */
const MAGIC = Buffer.from('AXSEAL1\n');
const SALT = 16;
const IV = 12;
const TAG = 16;
const HEADER = MAGIC.length + SALT + IV;

const derive = promisify<string, Buffer, number, ScryptOptions, Buffer>(scrypt);

/** What seals: a key, and the salt by which the same passphrase makes it again. */
export interface SealKey {
	salt: Buffer;
	key: Buffer;
}

/** The passphrase does not fit, or the file is not what it was. */
export class SealError extends Error {}

export async function sealKey(passphrase: string, salt = randomBytes(SALT)): Promise<SealKey> {
	return { salt, key: await derive(passphrase.normalize('NFC'), salt, 32, GUESS_COST) };
}

/** As one value, to be kept as a secret. */
export const packKey = ({ salt, key }: SealKey): Buffer => Buffer.concat([salt, key]);
export const unpackKey = (packed: Buffer): SealKey => ({
	salt: packed.subarray(0, SALT),
	key: packed.subarray(SALT)
});

/** What goes through becomes a sealed file. */
export function sealing({ salt, key }: SealKey): Transform {
	const iv = randomBytes(IV);
	const header = Buffer.concat([MAGIC, salt, iv]);
	const cipher = createCipheriv('aes-256-gcm', key, iv);
	cipher.setAAD(header);
	let begun = false;
	const begin = (through: Transform) => {
		if (!begun) through.push(header);
		begun = true;
	};
	return new Transform({
		transform(chunk: Buffer, _, done) {
			begin(this);
			done(null, cipher.update(chunk));
		},
		flush(done) {
			begin(this);
			this.push(cipher.final());
			done(null, cipher.getAuthTag());
		}
	});
}

async function headerOf(file: string): Promise<{ header: Buffer; tag: Buffer; size: number }> {
	const handle = await open(file);
	try {
		const { size } = await handle.stat();
		if (size < HEADER + TAG)
			throw new SealError('This file is no sealed backup, or was cut short.');
		const header = Buffer.alloc(HEADER);
		const tag = Buffer.alloc(TAG);
		await handle.read(header, 0, HEADER, 0);
		await handle.read(tag, 0, TAG, size - TAG);
		if (!header.subarray(0, MAGIC.length).equals(MAGIC))
			throw new SealError('This file is no sealed backup.');
		return { header, tag, size };
	} finally {
		await handle.close();
	}
}

/** Makes the keys of a passphrase. The files of a backup share a salt: its key is made once. */
export type KeyMaker = (salt: Buffer) => Promise<SealKey>;
export function keysOf(passphrase: string): KeyMaker {
	const made = new Map<string, Promise<SealKey>>();
	return (salt) => {
		const name = salt.toString('hex');
		const key = made.get(name) ?? sealKey(passphrase, Buffer.from(salt));
		made.set(name, key);
		return key;
	};
}

/**
 * Opens a sealed file into another. That one is there only once the tag fits: nothing of a wrong one is ever used.
 * @throws SealError
 */
export async function unseal(file: string, into: string, keys: KeyMaker): Promise<void> {
	const { header, tag, size } = await headerOf(file);
	const salt = header.subarray(MAGIC.length, MAGIC.length + SALT);
	const { key } = await keys(salt);
	const decipher = createDecipheriv('aes-256-gcm', key, header.subarray(-IV));
	decipher.setAAD(header);
	decipher.setAuthTag(tag);
	try {
		// An empty one has nothing between header and tag.
		const end = size - TAG - 1;
		if (end < HEADER) {
			decipher.final();
			await (await open(into, 'w', 0o600)).close();
			return;
		}
		await pipeline(
			createReadStream(file, { start: HEADER, end }),
			decipher,
			createWriteStream(into, { mode: 0o600 })
		);
	} catch (error) {
		await rm(into, { force: true });
		if (error instanceof Error && /auth/i.test(error.message))
			throw new SealError(
				'The passphrase does not fit, or the backup was altered. It was not opened.'
			);
		throw error;
	}
}
