// What the nightly audit found: kept for a while, and a next move while it is not clean.
import { desc, lt } from 'drizzle-orm';
import { addDays } from '../../../core/calendar/manipulation';
import type { Move } from '../../../core/moves';
import { counted } from '../../../core/words';
import { writeAtOnce, type Reader } from '../../db/connection';
import { audits } from '../../db/schema';
import type { World } from '../../world';

/** As many of its words are kept. */
const MOST_WORDS = 200;
const KEPT_DAYS = 400;

export type Audit = typeof audits.$inferSelect;

export function lastAudit(db: Reader): Audit | undefined {
	return db.select().from(audits).orderBy(desc(audits.day)).limit(1).get();
}

/** Keeps what the audit of today found; a second one of the same day takes the place of the first. */
export function keepAudit(world: World, words: readonly string[]): void {
	const day = world.clock.today();
	const values = {
		ranAt: world.clock.now(),
		found: words.length,
		words: words.slice(0, MOST_WORDS)
	};
	writeAtOnce(world.db, (tx) => {
		tx.insert(audits)
			.values({ day, ...values })
			.onConflictDoUpdate({ target: audits.day, set: values })
			.run();
		tx.delete(audits)
			.where(lt(audits.day, addDays(day, -KEPT_DAYS)))
			.run();
	});
}

export function auditMoves(world: World): Move[] {
	const last = lastAudit(world.db);
	if (!last?.found) return [];
	return [
		{
			id: 'audit',
			amount: null,
			late: true,
			title: `The books differ from themselves in ${counted(last.found, 'place')}`,
			detail: last.words[0] ?? '',
			action: 'See where',
			href: '/settings#audit'
		}
	];
}
