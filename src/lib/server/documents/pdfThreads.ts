// Threads that draw PDFs while the main one goes on answering.
import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { DrawAnswer, Drawable } from './pdfThread';

/** Lies in the source tree, from which the app is always started, and runs as it stands. */
const THREAD = resolve('src/lib/server/documents/pdfThreadStart.mjs');
const IDLE_MS = 10_000;

interface Waiting {
	resolve: (pdf: Buffer) => void;
	reject: (error: Error) => void;
}

class PdfThread {
	readonly #worker = new Worker(THREAD, { execArgv: [] });
	readonly #waiting = new Map<number, Waiting>();
	#count = 0;

	constructor(onEnd: (thread: PdfThread) => void) {
		this.#worker.on('message', (answer: DrawAnswer) => {
			const order = this.#waiting.get(answer.id);
			this.#waiting.delete(answer.id);
			// An idle thread keeps no process alive; one that draws does.
			if (this.#waiting.size === 0) this.#worker.unref();
			if ('pdf' in answer) order?.resolve(Buffer.from(answer.pdf));
			else order?.reject(new Error(answer.error));
		});
		const fail = (error: Error) => {
			for (const order of this.#waiting.values()) order.reject(error);
			this.#waiting.clear();
			onEnd(this);
		};
		this.#worker.on('error', fail);
		this.#worker.on('exit', () => fail(new Error('a PDF thread ended')));
		this.#worker.unref();
	}

	get load(): number {
		return this.#waiting.size;
	}

	draw(drawable: Drawable): Promise<Buffer> {
		const id = this.#count++;
		return new Promise((resolve, reject) => {
			this.#waiting.set(id, { resolve, reject });
			this.#worker.ref();
			this.#worker.postMessage({ id, drawable });
		});
	}

	end(): void {
		void this.#worker.terminate();
	}
}

/** As many threads as there are processors; they end when idle, but for one that stays ready once it was asked for. */
export class PdfThreads {
	#threads: PdfThread[] = [];
	#idle: ReturnType<typeof setTimeout> | undefined;
	#kept = 0;

	warm(): void {
		this.#kept = 1;
		if (this.#threads.length === 0) this.#add();
	}

	/** Draws on whichever thread has least to do. */
	async draw(drawable: Drawable): Promise<Buffer> {
		clearTimeout(this.#idle);
		const most = Math.max(1, Math.min(4, availableParallelism()));
		const free = this.#threads.find((one) => one.load === 0);
		const thread =
			free ??
			(this.#threads.length < most
				? this.#add()
				: this.#threads.reduce((least, one) => (one.load < least.load ? one : least)));
		try {
			return await thread.draw(drawable);
		} finally {
			clearTimeout(this.#idle);
			this.#idle = setTimeout(() => this.#endIdle(), IDLE_MS);
			this.#idle.unref();
		}
	}

	#add(): PdfThread {
		const thread = new PdfThread((ended) => {
			this.#threads = this.#threads.filter((one) => one !== ended);
		});
		this.#threads.push(thread);
		return thread;
	}

	#endIdle(): void {
		for (const thread of this.#threads.slice(this.#kept)) if (thread.load === 0) thread.end();
	}
}
