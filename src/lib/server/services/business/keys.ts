// Unguessable tokens, and keys that make a step happen once.
import { createHash, randomBytes } from 'node:crypto';

/** 192 bits, safe in an address. */
export function newToken(): string {
	return randomBytes(24).toString('base64url');
}

/** Whether something could be such a token: what was cut or altered on its way is none. */
export const isToken = (text: string): boolean => /^[A-Za-z0-9_-]{32}$/.test(text);

export function sha256(content: string | Buffer): string {
	return createHash('sha256').update(content).digest('hex');
}

/**
 * Keys for the rows of a file by what they say, so that the same file again is known; of rows that say the same, each has its own.
 */
export function rowKeys(prefix: string): (says: readonly string[]) => string {
	const times = new Map<string, number>();
	return (says) => {
		const what = JSON.stringify(says);
		const nth = (times.get(what) ?? 0) + 1;
		times.set(what, nth);
		return `${prefix}:${sha256(`${what} ${nth}`)}`;
	};
}
