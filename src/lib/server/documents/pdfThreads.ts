// Threads that draw PDFs while the main one goes on answering.
import { availableParallelism } from 'node:os';
import { Thread } from '../thread';
import type { Drawable } from './pdfThread';

const IDLE_MS = 10_000;

/** As many threads as there are processors; they end when idle, but for one that stays ready once it was asked for. */
export class PdfThreads {
	#threads: Thread<Drawable>[] = [];
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
			return Buffer.from((await thread.ask<Uint8Array<ArrayBuffer>>(drawable)).buffer);
		} finally {
			clearTimeout(this.#idle);
			this.#idle = setTimeout(() => this.#endIdle(), IDLE_MS);
			this.#idle.unref();
		}
	}

	#add(): Thread<Drawable> {
		const thread = new Thread<Drawable>('src/lib/server/documents/pdfThread.ts', (ended) => {
			this.#threads = this.#threads.filter((one) => one !== ended);
		});
		this.#threads.push(thread);
		return thread;
	}

	#endIdle(): void {
		for (const thread of this.#threads.slice(this.#kept)) if (thread.load === 0) thread.end();
	}
}
