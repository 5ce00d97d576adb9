// The computing core from the shell: `npm run -s figures -- invoice < input.json > output.json`.
import { readFileSync } from 'node:fs';
import { computations } from '../src/lib/core/computations';
import { FiguresError } from '../src/lib/core/figures/types';

function fail(error: { error: string; path: string }): never {
	process.stderr.write(`${JSON.stringify(error)}\n`);
	process.exit(2);
}

function describe(error: unknown): { error: string; path: string } {
	if (error instanceof FiguresError) return { error: error.message, path: error.path };
	throw error;
}

const name = process.argv[2] ?? '';
const compute = Object.hasOwn(computations, name) ? computations[name] : undefined;
if (!compute) {
	fail({ error: `expected one of ${Object.keys(computations).join(', ')}`, path: '' });
}

let input: unknown;
try {
	input = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(readFileSync(0)));
} catch {
	fail({ error: 'expected JSON on standard input', path: '' });
}

if (Array.isArray(input)) {
	const outputs = input.map((one) => {
		try {
			return compute(one);
		} catch (error) {
			return describe(error);
		}
	});
	process.stdout.write(`${JSON.stringify(outputs)}\n`);
} else {
	try {
		process.stdout.write(`${JSON.stringify(compute(input))}\n`);
	} catch (error) {
		fail(describe(error));
	}
}
