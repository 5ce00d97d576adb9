// Reading a statement: small ones at once, large ones on a thread, so that nobody waits for somebody else's file. What was read last is known again.
import { createHash } from 'node:crypto';
import { resolve } from 'node:path';
import { Worker } from 'node:worker_threads';
import { readBankFile, type BankFile } from '../../../../core/formats/bank/file';
import type { CsvLayout } from '../../../../core/formats/bank/headings';
import { TableError } from '../../../../core/formats/table';
import { FieldError } from '../../../../core/refusals';

/** Lies in the source tree, from which the app is always started, and runs as it stands. */
const THREAD = resolve('src/lib/server/services/money/bank/readThreadStart.mjs');
/** Below this a file is read in a blink. */
const SMALL = 60_000;
/** A file that a bank wrote takes a few seconds at most, and a few hundred megabytes. */
const PATIENCE_MS = 60_000;
const MOST_MB = 768;
/** More lines than a tradesperson’s account has in ten years. */
const MOST_LINES = 20_000;
const KEPT = 4;

export type ReadAnswer = { file: BankFile } | { wrong: string };

const lately = new Map<string, BankFile>();
const nameOf = (bytes: Uint8Array, layout: CsvLayout | null): string =>
	createHash('sha256').update(bytes).update(JSON.stringify(layout)).digest('hex');

function keep(name: string, file: BankFile): BankFile {
	lately.delete(name);
	lately.set(name, file);
	for (const oldest of lately.keys()) {
		if (lately.size <= KEPT) break;
		lately.delete(oldest);
	}
	return file;
}

const notTooLong = (file: BankFile): BankFile => {
	if (file.lines.length > MOST_LINES)
		throw new TableError(
			`This file has ${file.lines.length.toLocaleString('en-GB')} lines: at most 20,000 are brought in at once. Ask the bank for fewer months.`
		);
	return file;
};

/** What a file says. @throws TableError */
export function read(bytes: Uint8Array, layout: CsvLayout | null = null): BankFile {
	const name = nameOf(bytes, layout);
	return lately.get(name) ?? keep(name, notTooLong(readBankFile(bytes, layout)));
}

/** Has a large file read on a thread; `read` then knows it. What is wrong with it is said by `read` or here. @throws TableError */
export async function readAhead(bytes: Uint8Array, layout: CsvLayout | null = null): Promise<void> {
	const name = nameOf(bytes, layout);
	if (bytes.length < SMALL || lately.has(name)) return;
	keep(name, notTooLong(await onThread(bytes, layout)));
}

function onThread(bytes: Uint8Array, layout: CsvLayout | null): Promise<BankFile> {
	const worker = new Worker(THREAD, {
		execArgv: [],
		resourceLimits: { maxOldGenerationSizeMb: MOST_MB }
	});
	let timer: ReturnType<typeof setTimeout> | undefined;
	return new Promise<BankFile>((done, fail) => {
		const tooMuch = () => fail(new TableError('This file is too large to be read. Split it.'));
		timer = setTimeout(tooMuch, PATIENCE_MS);
		worker.on('message', (answer: ReadAnswer) =>
			'file' in answer ? done(answer.file) : fail(new TableError(answer.wrong))
		);
		worker.on('error', (error: NodeJS.ErrnoException) =>
			error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? tooMuch() : fail(error)
		);
		worker.on('exit', () => fail(new Error('the reading thread ended')));
		worker.postMessage({ bytes, layout });
	}).finally(() => {
		clearTimeout(timer);
		void worker.terminate();
	});
}

/** What cannot be read is said at the file. */
export function inItsBox<T>(work: () => T): T {
	try {
		return work();
	} catch (error) {
		if (error instanceof TableError) throw new FieldError({ file: error.message });
		throw error;
	}
}
