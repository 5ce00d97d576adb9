// The thread that matches all bank lines: takes invoices and lines, tells how far it is, gives back the best of each.
import { parentPort } from 'node:worker_threads';
import { Matcher } from '../../../../core/bank/match';
import { RecordedMatcher, together, type RecordedMoney } from '../../../../core/bank/recorded';
import type { OpenInvoice, Proposal, ToMatch } from '../../../../core/bank/types';

export interface MatchOrder {
	invoices: OpenInvoice[];
	learned: [string, number][];
	recorded: RecordedMoney[];
	lines: ToMatch[];
}
export type MatchAnswer = { done: number } | { found: { id: number; best: Proposal | null }[] };

const STEP = 200;

parentPort!.on('message', ({ invoices, learned, recorded, lines }: MatchOrder) => {
	const matcher = new Matcher(invoices, new Map(learned));
	const known = new RecordedMatcher(recorded);
	const found: { id: number; best: Proposal | null }[] = [];
	for (const line of lines) {
		found.push({
			id: line.id,
			best: together(matcher.propose(line), known.propose(line))[0] ?? null
		});
		if (found.length % STEP === 0)
			parentPort!.postMessage({ done: found.length } satisfies MatchAnswer);
	}
	parentPort!.postMessage({ found } satisfies MatchAnswer);
});
