// A thread that is asked one thing after the other, while the main one goes on answering.
import { resolve } from 'node:path';
import { pathToFileURL } from 'node:url';
import {
	parentPort,
	Worker,
	type ResourceLimits,
	type TransferListItem
} from 'node:worker_threads';

/** Lies in the source tree, from which the app is always started, and runs as it stands. */
const START = resolve('src/lib/server/threadStart.mjs');

interface Order<O> {
	id: number;
	order: O;
}
type Told = { id: number } & (
	{ answer: unknown } | { error: string; code?: string } | { progress: unknown }
);

interface Waiting {
	done(answer: unknown): void;
	fail(error: Error): void;
	progress(told: unknown): void;
}

/** What was asked of a thread took longer than it may. */
export class TooLongError extends Error {}

export class Thread<O> {
	readonly #worker: Worker;
	readonly #waiting = new Map<number, Waiting>();
	readonly #onEnd: (thread: Thread<O>) => void;
	#count = 0;

	/** `module`: from the project's root; it calls `answerOrders`. */
	constructor(module: string, onEnd: (thread: Thread<O>) => void, limits: ResourceLimits = {}) {
		this.#onEnd = onEnd;
		this.#worker = new Worker(START, {
			execArgv: [],
			resourceLimits: limits,
			workerData: { module: pathToFileURL(resolve(module)).href }
		});
		this.#worker.on('message', (told: Told) => this.#hear(told));
		const end = (error: Error) => {
			this.#failAll(error);
			onEnd(this);
		};
		this.#worker.on('error', end);
		this.#worker.on('exit', (code) => end(new Error(`the thread ended (${code})`)));
		this.#worker.unref();
	}

	/** How much it was asked and has not answered. */
	get load(): number {
		return this.#waiting.size;
	}

	/** `patience`, in milliseconds: a thread that takes longer is ended, with all it was asked. */
	ask<A>(
		order: O,
		{
			transfer = [],
			patience,
			progress = () => undefined
		}: {
			transfer?: TransferListItem[];
			patience?: number;
			progress?: (told: unknown) => void;
		} = {}
	): Promise<A> {
		const id = this.#count++;
		let timer: ReturnType<typeof setTimeout> | undefined;
		return new Promise<A>((done, fail) => {
			this.#waiting.set(id, { done: done as Waiting['done'], fail, progress });
			if (patience !== undefined)
				timer = setTimeout(() => {
					this.#failAll(new TooLongError(`nothing came for ${patience} ms`));
					this.end();
				}, patience);
			// An idle thread keeps no process alive; one that works does.
			this.#worker.ref();
			this.#worker.postMessage({ id, order } satisfies Order<O>, transfer);
		}).finally(() => clearTimeout(timer));
	}

	/** It is gone for whoever keeps it at once: what is asked while it comes to its end would not be answered. */
	end(): void {
		this.#onEnd(this);
		void this.#worker.terminate();
	}

	#hear(told: Told): void {
		const one = this.#waiting.get(told.id);
		if ('progress' in told) return one?.progress(told.progress);
		this.#waiting.delete(told.id);
		if (this.#waiting.size === 0) this.#worker.unref();
		if ('answer' in told) one?.done(told.answer);
		else one?.fail(Object.assign(new Error(told.error), told.code ? { code: told.code } : {}));
	}

	#failAll(error: Error): void {
		for (const one of this.#waiting.values()) one.fail(error);
		this.#waiting.clear();
	}
}

/** The other side, in the module of a thread. Bytes that are an answer have a buffer of their own: it is handed over, not copied. */
export function answerOrders<O>(
	work: (order: O, progress: (told: unknown) => void) => unknown
): void {
	const port = parentPort!;
	const say = (told: Told, transfer: ArrayBuffer[] = []) => port.postMessage(told, transfer);
	port.on('message', async ({ id, order }: Order<O>) => {
		try {
			const answer = await work(order, (told) => say({ id, progress: told }));
			say({ id, answer }, answer instanceof Uint8Array ? [answer.buffer as ArrayBuffer] : []);
		} catch (error) {
			const { code, message } = error as NodeJS.ErrnoException;
			say({ id, error: message, ...(code ? { code } : {}) });
		}
	});
}
