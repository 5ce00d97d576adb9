// Says which bugs the unit tests would notice: `npm run mutate -- src/lib/core/settlement [how many]`.
// Small changes are put into the code of a folder one at a time, and the tests that reach the changed place are run,
// the quickest first, until one fails. What no test fails for is listed. Sentences for people are left as they are.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import {
	cpSync,
	existsSync,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync,
	statSync,
	symlinkSync,
	writeFileSync
} from 'node:fs';
import { availableParallelism } from 'node:os';
import { join, relative, resolve } from 'node:path';
import { createInstrumenter } from '@stryker-mutator/instrumenter';
import { createInjector } from 'typed-inject';

const SEED = 20261124;
/** What only slow tests would notice counts as unnoticed. */
const TESTING_MS = 25_000;
const [path, howMany = '300'] = process.argv.slice(2);
if (!path || !existsSync(path)) {
	console.error('Which folder or file? npm run mutate -- src/lib/core/settlement [how many]');
	process.exit(2);
}

function filesUnder(at: string, ending: RegExp): string[] {
	if (statSync(at).isFile()) return ending.test(at) ? [at] : [];
	return readdirSync(at)
		.sort()
		.flatMap((name) => filesUnder(join(at, name), ending));
}

/** The same sample each time (mulberry32). */
function shuffled<T>(all: readonly T[], seed: number): T[] {
	const list = [...all];
	let state = seed;
	const random = () => {
		state = (state + 0x6d2b79f5) | 0;
		let t = Math.imul(state ^ (state >>> 15), 1 | state);
		t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
		return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
	};
	for (let i = list.length - 1; i > 0; i--) {
		const j = Math.floor(random() * (i + 1));
		[list[i], list[j]] = [list[j]!, list[i]!];
	}
	return list;
}

const root = process.cwd();
mkdirSync('.test', { recursive: true });
const copy = mkdtempSync(resolve('.test/mutate-'));
process.on('exit', () => rmSync(copy, { recursive: true, force: true }));
process.on('SIGINT', () => process.exit(130));
for (const part of ['src', 'tests', 'scripts', 'demo', 'stand-ins', 'static'])
	cpSync(part, join(copy, part), { recursive: true });
for (const part of ['package.json', 'tsconfig.json']) cpSync(part, join(copy, part));
for (const part of ['node_modules', '.svelte-kit', 'build'])
	if (existsSync(part)) symlinkSync(resolve(part), join(copy, part));

const quiet = () => {};
const logger = {
	isTraceEnabled: () => false,
	isDebugEnabled: () => false,
	isInfoEnabled: () => false,
	isWarnEnabled: () => false,
	isErrorEnabled: () => false,
	isFatalEnabled: () => false,
	trace: quiet,
	debug: quiet,
	info: quiet,
	warn: quiet,
	error: quiet,
	fatal: quiet
};
const instrumenter = createInjector()
	.provideValue('logger', logger)
	.injectFunction(createInstrumenter as never) as ReturnType<typeof createInstrumenter>;
const sources = filesUnder(path, /\.ts$/).map((name) => ({
	name: relative(root, resolve(name)),
	mutate: true,
	content: readFileSync(name, 'utf8')
}));
const made = await instrumenter.instrument(sources, {
	plugins: null,
	excludedMutations: [],
	ignorers: []
});
for (const file of made.files) writeFileSync(join(copy, file.name), file.content);

interface Spot {
	line: number;
	column: number;
}
/** What stood where a change was made; lines and columns count from 0. */
function original(file: string, start: Spot, end: Spot): string {
	const lines = sources.find((one) => one.name === file)!.content.split('\n');
	if (start.line === end.line) return lines[start.line]!.slice(start.column, end.column);
	return lines[start.line]!.slice(start.column) + ' …';
}
const mutants = made.mutants
	.map((one) => ({
		id: one.id,
		kind: one.mutatorName,
		file: relative(root, resolve(one.fileName)),
		line: one.location.start.line + 1,
		was: original(relative(root, resolve(one.fileName)), one.location.start, one.location.end),
		becomes: one.replacement.replace(/\s+/g, ' ').slice(0, 60)
	}))
	.filter((one) => !(/StringLiteral/.test(one.kind) && /\s/.test(one.was)));
const sample = shuffled(mutants, SEED).slice(0, Number(howMany));

const noteReached = join(copy, 'reached.mjs');
writeFileSync(
	noteReached,
	`import { writeFileSync } from 'node:fs';
process.on('exit', () => {
	const reached = Object.keys(globalThis.__stryker__?.mutantCoverage?.static ?? {});
	if (process.env.REACHED) writeFileSync(process.env.REACHED, JSON.stringify(reached));
});
`
);

/** Whether the tests of a file passed; what takes far longer than it should has failed. */
async function passes(
	test: string,
	env: Record<string, string>,
	within: number
): Promise<{ passed: boolean; took: number }> {
	const began = performance.now();
	const run = spawn(
		process.execPath,
		[
			join(root, 'node_modules/mocha/bin/mocha.js'),
			'--no-config',
			'--bail',
			'--exit',
			'--node-option',
			'import=tsx',
			'--require',
			noteReached,
			'--require',
			join(root, 'tests/support/seed.ts'),
			'--timeout',
			'600000',
			test
		],
		{ cwd: copy, env: { ...process.env, ...env }, stdio: 'ignore', detached: true }
	);
	const stop = setTimeout(() => process.kill(-run.pid!, 'SIGKILL'), within);
	const [status] = await once(run, 'close');
	clearTimeout(stop);
	return { passed: status === 0, took: performance.now() - began };
}

/** Works through a list, as many at once as there are cores. */
async function eachOf<T>(list: readonly T[], work: (one: T) => Promise<void>): Promise<void> {
	const rest = [...list];
	await Promise.all(
		Array.from({ length: Math.min(availableParallelism(), 4) }, async () => {
			for (let one = rest.shift(); one !== undefined; one = rest.shift()) await work(one);
		})
	);
}

const reachedBy = new Map<string, { test: string; took: number }[]>();
await eachOf(filesUnder('tests/unit', /\.test\.ts$/), async (test) => {
	const out = join(copy, `reached-${test.replaceAll('/', '-')}.json`);
	const { passed, took } = await passes(test, { REACHED: out }, 600_000);
	if (!passed) throw new Error(`${test} fails before anything is changed.`);
	for (const id of JSON.parse(readFileSync(out, 'utf8')) as string[]) {
		const tests = reachedBy.get(id) ?? [];
		tests.push({ test, took });
		reachedBy.set(
			id,
			tests.sort((a, b) => a.took - b.took)
		);
	}
});

const survived: typeof sample = [];
let noticed = 0;
await eachOf(sample, async (mutant) => {
	let spent = 0;
	for (const { test, took } of reachedBy.get(mutant.id) ?? []) {
		if (spent > 0 && spent + took > TESTING_MS) break;
		spent += took;
		const env = { __STRYKER_ACTIVE_MUTANT__: mutant.id };
		if (!(await passes(test, env, took * 4 + 10_000)).passed) {
			noticed++;
			return;
		}
	}
	survived.push(mutant);
});

survived.sort((a, b) => a.file.localeCompare(b.file) || a.line - b.line);
for (const one of survived) {
	const reached = reachedBy.has(one.id) ? '' : ' (no test comes here)';
	console.log(
		`${one.file}:${one.line} ${one.kind}: ${one.was.slice(0, 60)} → ${one.becomes}${reached}`
	);
}
console.log(
	`\n${path}: ${noticed} of ${sample.length} changes noticed (${Math.round((100 * noticed) / sample.length)} %), of ${mutants.length} that could be made`
);
process.exit(0);
