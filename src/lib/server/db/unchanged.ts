// Answers that hold as long as nothing is written: worked out once, given again until any row of the file changes.
import { sql } from 'drizzle-orm';
import type { Database } from './connection';

/** Differs after every change of a row, by this connection or by another one. */
function stampOf(db: Database): string {
	const own = db.get<{ n: number }>(sql`select total_changes() as n`)!.n;
	const others = db.$client.pragma('data_version', { simple: true });
	return `${own} ${others}`;
}

interface Kept {
	stamp: string;
	value: unknown;
}

const kept = new WeakMap<Database, Map<string, Kept>>();

/** So many answers are kept for a file. */
const MOST = 20;

/**
 * What `work` gives, worked out anew only where something was written since the last time. `key` names the question with
 * all it depends on besides the data: the day, what was chosen.
 */
export function whileUnchanged<T>(db: Database, key: string, work: () => T): T {
	const answers = kept.get(db) ?? new Map<string, Kept>();
	kept.set(db, answers);
	const stamp = stampOf(db);
	const known = answers.get(key);
	if (known?.stamp === stamp) return known.value as T;
	const value = work();
	answers.delete(key);
	answers.set(key, { stamp, value });
	for (const oldest of answers.keys()) {
		if (answers.size <= MOST) break;
		answers.delete(oldest);
	}
	return value;
}
