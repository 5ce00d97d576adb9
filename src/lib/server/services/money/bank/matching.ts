// Matching every open bank line on a thread, so that the app goes on answering; with how far it is.
import type { World } from '../../../world';
import { onBankThread } from './bankThreads';
import { waitingLines } from './matchAll';

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
	running = matchAgain(world).finally(() => {
		running = null;
	});
	return running;
}

async function matchAgain(world: World): Promise<void> {
	do {
		again = false;
		progress = { done: 0, of: waitingLines(world.db) };
		if (progress.of === 0) return;
		await onBankThread(
			'matching',
			world,
			{ job: 'matchAll' },
			{ progress: (done) => (progress = { ...progress, done: Number(done) }) }
		);
	} while (again);
}
