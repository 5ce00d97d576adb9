// The thread that matches all bank lines: takes invoices and lines, tells how far it is, gives back the best of each.
import { parentPort } from 'node:worker_threads';
import { Proposer, type Known } from '../../../../core/bank/proposer';
import type { Proposal, ToMatch } from '../../../../core/bank/types';

export interface MatchOrder extends Known {
	lines: ToMatch[];
}
export type MatchAnswer = { done: number } | { found: { id: number; best: Proposal | null }[] };

const STEP = 200;

parentPort!.on('message', ({ lines, ...known }: MatchOrder) => {
	const proposer = new Proposer(known);
	const found: { id: number; best: Proposal | null }[] = [];
	for (const line of lines) {
		found.push({
			id: line.id,
			best: proposer.propose(line)[0] ?? null
		});
		if (found.length % STEP === 0)
			parentPort!.postMessage({ done: found.length } satisfies MatchAnswer);
	}
	parentPort!.postMessage({ found } satisfies MatchAnswer);
});
