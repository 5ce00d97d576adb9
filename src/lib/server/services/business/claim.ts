// Whose a fresh installation is: whoever has the code that stood on its console, once. And a folder that held books never becomes a fresh one by itself.
import { existsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { randomBytes, timingSafeEqual } from 'node:crypto';
import type { Reader } from '../../db/connection';
import { isNotNull } from 'drizzle-orm';
import { people } from '../../db/schema';
import { sha256 } from './keys';

const MARK = 'books-are-here';
const WORDS = `This folder holds the books of a business. Axiometer looks for this file: where it is and the data file is gone or empty,
nothing is begun anew, because that would hide the loss. To begin anew on purpose, remove this file as well.
`;

/** The folder held books, and holds none. */
export class LostBooksError extends Error {}

/** Notes that the folder holds books. */
export function markClaimed(folder: string): void {
	const file = join(folder, MARK);
	if (!existsSync(file)) writeFileSync(file, WORDS, { mode: 0o600 });
}

/** @throws LostBooksError where the folder held books, and the data file knows no owner */
export function checkClaim(db: Reader, folder: string): void {
	const owned =
		db.select({ id: people.id }).from(people).where(isNotNull(people.passwordHash)).get() !==
		undefined;
	if (owned) return markClaimed(folder);
	if (existsSync(join(folder, MARK)))
		throw new LostBooksError(
			`Axiometer did not start. The folder ${folder} has held books, and its data file is missing or empty.\nPut the data file back, or restore a backup: npm run restore -- FILE. To begin anew on purpose, remove the file “${MARK}” in it.`
		);
}

let code: string | undefined;

/** The code with which a fresh installation is claimed, as long as this process runs. `given` is the operator's own. */
export function setupCode(given?: string): string {
	code ??= given ?? randomBytes(9).toString('base64url');
	return code;
}

/** Whether this is the code of this start. */
export function isSetupCode(typed: string, given?: string): boolean {
	return timingSafeEqual(Buffer.from(sha256(typed.trim())), Buffer.from(sha256(setupCode(given))));
}
