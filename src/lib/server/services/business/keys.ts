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
