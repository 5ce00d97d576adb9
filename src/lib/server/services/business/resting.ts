// Books that come from a backup rest: nothing goes out by itself, and no number is taken, until the owner has said from where they go on.
import { desc, isNull } from 'drizzle-orm';
import { RefusedError } from '../../../core/refusals';
import type { Reader } from '../../db/connection';
import { restores } from '../../db/schema';

export type Restore = typeof restores.$inferSelect;

/** The restore that was not looked through yet; undefined where the books go on as ever. */
export function restingSince(db: Reader): Restore | undefined {
	return db
		.select()
		.from(restores)
		.where(isNull(restores.startedAt))
		.orderBy(desc(restores.id))
		.limit(1)
		.get();
}

/** @throws RefusedError while the books rest */
export function mustNotRest(db: Reader): void {
	if (restingSince(db))
		throw new RefusedError(
			'These books come from a backup. Say first, under After a restore, from which number they go on.'
		);
}
