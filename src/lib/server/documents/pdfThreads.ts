// Threads that draw PDFs while the main one goes on answering. They start with the first long run and end when idle.
import { availableParallelism } from 'node:os';
import { resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { PdfOptions } from './pdf';
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

	draw(view: Drawable, options: PdfOptions, payUrls?: (string | null)[]): Promise<Buffer> {
		const id = this.#count++;
		return new Promise((resolve, reject) => {
			this.#waiting.set(id, { resolve, reject });
			this.#worker.ref();
			this.#worker.postMessage({ id, view, options, payUrls });
		});
	}

	end(): void {
		void this.#worker.terminate();
	}
}

let threads: PdfThread[] = [];
let idle: ReturnType<typeof setTimeout> | undefined;

/** Draws on whichever thread has least to do. */
export async function drawOnThread(
	view: Drawable,
	options: PdfOptions,
	payUrls?: (string | null)[]
): Promise<Buffer> {
	clearTimeout(idle);
	if (threads.length === 0)
		threads = Array.from(
			{ length: Math.max(1, Math.min(4, availableParallelism())) },
			() => new PdfThread((ended) => (threads = threads.filter((one) => one !== ended)))
		);
	const thread = threads.reduce((least, one) => (one.load < least.load ? one : least));
	try {
		return await thread.draw(view, options, payUrls);
	} finally {
		clearTimeout(idle);
		idle = setTimeout(endThreads, IDLE_MS);
		idle.unref();
	}
}

export function endThreads(): void {
	for (const thread of threads) if (thread.load === 0) thread.end();
}
