// The threads of the bank: started when they are asked for, ended when they were idle for a while.
import { FieldError, NotFoundError } from '../../../../core/refusals';
import { Thread, TooLongError } from '../../../thread';
import type { World } from '../../../world';
import type { BankAnswer, BankJob, BankOrder } from './bankThread';

/** A file that a bank wrote takes a few seconds at most, and a few hundred megabytes. */
const PATIENCE_MS = 60_000;
const MOST_MB = 768;
/** What was read is known to the thread for so long. */
const IDLE_MS = 60_000;

const TOO_LARGE = { file: 'This file is too large to be read. Split it.' };

/** Files do not wait for lines to be matched. */
type Name = 'files' | 'matching';
const threads = new Map<Name, Thread<BankOrder>>();
const idle = new Map<Name, ReturnType<typeof setTimeout>>();

function threadOf(name: Name): Thread<BankOrder> {
	const there = threads.get(name);
	if (there) return there;
	const thread = new Thread<BankOrder>(
		'src/lib/server/services/money/bank/bankThread.ts',
		(ended) => {
			if (threads.get(name) === ended) threads.delete(name);
		},
		name === 'files' ? { maxOldGenerationSizeMb: MOST_MB } : {}
	);
	threads.set(name, thread);
	return thread;
}

/** @throws FieldError, NotFoundError as the work itself does; FieldError where a file takes too long or too much memory */
export async function onBankThread(
	name: Name,
	world: World,
	job: BankJob,
	{ progress, transfer }: { progress?: (told: unknown) => void; transfer?: ArrayBuffer[] } = {}
): Promise<unknown> {
	clearTimeout(idle.get(name));
	const thread = threadOf(name);
	try {
		const answer = await thread.ask<BankAnswer>(
			{ ...job, file: world.db.$client.name, now: world.clock.now() },
			{
				...(name === 'files' ? { patience: PATIENCE_MS } : {}),
				...(progress ? { progress } : {}),
				...(transfer ? { transfer } : {})
			}
		);
		if ('fields' in answer) throw new FieldError(answer.fields);
		if ('missing' in answer) throw new NotFoundError('This file');
		return answer.result;
	} catch (error) {
		const { code } = error as NodeJS.ErrnoException;
		if (name === 'files' && (error instanceof TooLongError || code === 'ERR_WORKER_OUT_OF_MEMORY'))
			throw new FieldError(TOO_LARGE);
		throw error;
	} finally {
		clearTimeout(idle.get(name));
		const timer = setTimeout(() => {
			if (thread.load === 0) thread.end();
		}, IDLE_MS);
		idle.set(name, timer.unref());
	}
}
