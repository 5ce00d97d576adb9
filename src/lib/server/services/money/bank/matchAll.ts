// The best proposal of every open line, looked for and kept.
import { and, count, eq, gt } from 'drizzle-orm';
import { Proposer } from '../../../../core/bank/proposer';
import type { Database, Reader } from '../../../db/connection';
import { bankLines } from '../../../db/schema';
import { keepProposals, linesToMatch, matchInput } from './facts';

/** So many are kept at once: whoever writes something else meanwhile does not wait longer. */
const STEP = 200;

/** How many lines wait to be matched. */
export const waitingLines = (db: Reader): number =>
	db
		.select({ n: count() })
		.from(bankLines)
		.where(and(eq(bankLines.state, 'open'), gt(bankLines.amount, 0)))
		.get()!.n;

/** Matches all of them, and says after each step how many are done. */
export function matchAll(db: Database, progress: (done: number) => void): void {
	const lines = linesToMatch(db);
	const proposer = new Proposer(matchInput(db));
	for (let from = 0; from < lines.length; from += STEP) {
		const step = lines.slice(from, from + STEP);
		keepProposals(
			db,
			step.map((line) => ({ id: line.id, best: proposer.propose(line)[0] ?? null }))
		);
		progress(from + step.length);
	}
}
