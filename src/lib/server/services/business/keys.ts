// Unguessable tokens, and keys that make a step happen once.
import { createHash, randomBytes } from 'node:crypto';

/** 192 bits, safe in an address. */
export function newToken(): string {
	return randomBytes(24).toString('base64url');
}

export function sha256(content: string | Buffer): string {
	return createHash('sha256').update(content).digest('hex');
}
