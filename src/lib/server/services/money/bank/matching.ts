// Matching every open bank line on a thread, so that the app goes on answering; with how far it is.
import { resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { World } from '../../../world';
import { keepProposals, linesToMatch, matchInput } from './facts';
import type { MatchAnswer, MatchOrder } from './matchThread';

/** Lies in the source tree, from which the app is always started, and runs as it stands. */
const THREAD = resolve('src/lib/server/services/money/bank/matchThreadStart.mjs');

let running: Promise<void> | null = null;
let again = false;
let progress = { done: 0, of: 0 };

export const matchingProgress = (): { done: number; of: number } | null =>
	running ? progress : null;

/** Looks for the best proposal of each open line. Called while it runs, it runs once more after that. */
export function matchLines(world: World): Promise<void> {
	if (running) {
		again = true;
		return running;
	}
	running = matchAll(world).finally(() => {
		running = null;
	});
	return running;
}

async function matchAll(world: World): Promise<void> {
	do {
		again = false;
		const lines = linesToMatch(world.db);
		if (lines.length === 0) return;
		progress = { done: 0, of: lines.length };
		const found = await onThread({ ...matchInput(world.db), lines });
		keepProposals(world, found);
	} while (again);
}

function onThread(order: MatchOrder): Promise<Extract<MatchAnswer, { found: unknown }>['found']> {
	const worker = new Worker(THREAD, { execArgv: [] });
	return new Promise<Extract<MatchAnswer, { found: unknown }>['found']>((done, fail) => {
		worker.on('message', (answer: MatchAnswer) => {
			if ('found' in answer) done(answer.found);
			else progress = { ...progress, done: answer.done };
		});
		worker.on('error', fail);
		worker.on('exit', () => fail(new Error('the matching thread ended')));
		worker.postMessage(order);
	}).finally(() => void worker.terminate());
}
