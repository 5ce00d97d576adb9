// Asks on the console for what nobody looking over a shoulder should read.
import { createInterface } from 'node:readline';
import { Writable } from 'node:stream';

/** @param {string} question @returns {Promise<string>} empty where there is nobody to ask */
export function askHidden(question) {
	if (!process.stdin.isTTY) return Promise.resolve('');
	const output = new Writable({ write: (_chunk, _encoding, done) => done() });
	const asking = createInterface({ input: process.stdin, output, terminal: true });
	// Only now, when the console echoes nothing any more: an answer that comes at once is not shown either.
	process.stdout.write(question);
	return new Promise((resolve) =>
		asking.question('', (typed) => {
			asking.close();
			process.stdout.write('\n');
			resolve(typed);
		})
	);
}
