// Says which bugs the unit tests would notice: `npm run mutate -- src/lib/core/settlement [another folder] [how many of each]`.
// Small changes are put into the code of a folder one at a time, and of its own tests (in the folder of the same name, or above it, in the core or in the services)
// those that reach the changed place are run until one fails. What no test fails for is listed. Sentences for people are left as they are.
// Over 300 lines: one run, whose parts share its sample.
import { fork, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
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
import { dirname, join, relative, resolve } from 'node:path';
import { createInstrumenter } from '@stryker-mutator/instrumenter';
import { createInjector } from 'typed-inject';
import type { Loaded, Question } from './mutateRunner';

/** Another seed draws another sample: AXIOMETER_SEED. */
const SEED = Number(process.env.AXIOMETER_SEED ?? 20261124);
/** What only slow tests would notice counts as unnoticed. */
const TESTING_MS = 30_000;
/** Noting what each test reaches takes about three times as long: what takes longer would be too slow anyway. */
const LOADING_MS = 120_000;
const given = process.argv.slice(2);
const howMany = Number(given.find((one) => /^\d+$/.test(one)) ?? 300);
const paths = given.filter((one) => !/^\d+$/.test(one)).map((one) => relative('.', resolve(one)));
if (paths.length === 0 || !paths.every((path) => existsSync(path))) {
	console.error(
		'Which folder or file? npm run mutate -- src/lib/core/settlement [another] [how many]'
	);
	process.exit(2);
}

function filesUnder(at: string, ending: RegExp): string[] {
	if (statSync(at).isFile()) return ending.test(at) ? [at] : [];
	return readdirSync(at)
		.sort()
		.flatMap((name) => filesUnder(join(at, name), ending));
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
const sources = paths
	.flatMap((path) => filesUnder(path, /\.ts$/))
	.map((name) => ({
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
const under = (path: string) => (one: { file: string }) =>
	one.file === path || one.file.startsWith(`${path}/`);
/** Where a change stands among all, the same while what stands there is the same, whatever changes elsewhere. */
const drawn = new Map<string, string>();
const alike = new Map<string, number>();
const linesOf = new Map(sources.map(({ name, content }) => [name, content.split('\n')]));
for (const { id, file, kind, was, becomes, line } of mutants) {
	const text = linesOf.get(file)![line - 1]!.trim();
	const what = JSON.stringify([file, kind, text, was, becomes]);
	const before = alike.get(what) ?? 0;
	alike.set(what, before + 1);
	drawn.set(
		id,
		createHash('sha256')
			.update(JSON.stringify([SEED, what, before]))
			.digest('hex')
	);
}
const inDrawnOrder = mutants.toSorted((a, b) => (drawn.get(a.id)! < drawn.get(b.id)! ? -1 : 1));
const sample = paths.flatMap((path) => inDrawnOrder.filter(under(path)).slice(0, howMany));

const RUNNER = join(copy, 'scripts/mutateRunner.ts');

/** A process that runs tests, of one file after the other; begun anew after what did not end. */
class Runner {
	#child: ChildProcess | undefined;
	#test = '';
	/** What was passed while something was loaded, now or for an earlier file: a change of it is not seen in this process. */
	#atLoad = new Set<string>();

	#start(test: string, env: NodeJS.ProcessEnv): ChildProcess {
		return fork(RUNNER, [join(root, 'tests/support/seed.ts'), ...(test ? [test] : [])], {
			cwd: copy,
			execArgv: ['--import', 'tsx'],
			env: { ...process.env, ...env },
			stdio: ['ignore', 'ignore', 'ignore', 'ipc']
		});
	}

	/** Null where it did not come in time, or the process ended. */
	#ask<T>(question: Question, within: number): Promise<T | null> {
		const child = (this.#child ??= this.#start('', {}));
		return new Promise((resolve) => {
			const done = (said: T | null) => {
				clearTimeout(stop);
				child.removeAllListeners();
				if (said === null) this.end();
				resolve(said);
			};
			const stop = setTimeout(() => done(null), within);
			child.once('message', (said) => done(said as T));
			child.once('exit', () => done(null));
			child.send(question, () => undefined);
		});
	}

	/** Loads a file with nothing changed. Null where that took too long. @throws where its tests fail */
	async load(test: string, within: number): Promise<Loaded | null> {
		this.#test = test;
		let answer = await this.#ask<Loaded>({ file: join(copy, test) }, within);
		if (answer?.passed === false) {
			// What files before it left behind is in the way: by itself.
			this.end();
			answer = await this.#ask<Loaded>({ file: join(copy, test) }, within);
		}
		if (answer?.passed === false) throw new Error(`${test} fails before anything is changed.`);
		for (const id of answer?.atLoad ?? []) this.#atLoad.add(id);
		return answer;
	}

	isAtLoad(mutant: string): boolean {
		return this.#atLoad.has(mutant);
	}

	/** Whether these still pass with this change, or with none; what takes far longer than it should has failed, as what ends the process. */
	async passes(mutant: string | null, tests: string[] | null, within: number): Promise<boolean> {
		if (!this.#child && !(await this.load(this.#test, LOADING_MS))) return true;
		return (await this.#ask<{ passed: boolean }>({ mutant, tests }, within))?.passed ?? false;
	}

	/** As `passes`, in a process of its own. */
	async passesAlone(mutant: string, test: string, within: number): Promise<boolean> {
		const child = this.#start(join(copy, test), { __STRYKER_ACTIVE_MUTANT__: mutant });
		const stop = setTimeout(() => child.kill('SIGKILL'), within);
		const [status] = (await once(child, 'exit')) as [number | null];
		clearTimeout(stop);
		return status === 0;
	}

	end(): void {
		this.#child?.kill('SIGKILL');
		this.#child = undefined;
		this.#atLoad.clear();
	}
}

/** A trade has one name in the core and in the services: `core/quotes` and `services/quotes` are one room on two floors. */
const roomOf = (folder: string) => /(?:core|services)\/([a-z]+)/.exec(folder)?.[1];

/** What of services asks who may is held by one test for all of them. */
const RIGHTS = 'tests/unit/services/people/guards.test.ts';

/** Whether tests stand where those of the changed file do: in the folder of its name, above it, or in its room on the other floor. */
function isOwn(test: string, file: string): boolean {
	const [theirs, its] = [
		dirname(test)
			.replace('tests/unit', 'src/lib')
			.replace('src/lib/services', 'src/lib/server/services'),
		dirname(file)
	];
	const room = roomOf(its);
	return (
		(test === RIGHTS && file.startsWith('src/lib/server/services/')) ||
		`${theirs}/`.startsWith(`${its}/`) ||
		`${its}/`.startsWith(`${theirs}/`) ||
		(room !== undefined && room === roomOf(theirs))
	);
}

const reached = new Set<string>();
const noticed = new Set<string>();
const spent = new Map<string, number>();
/** Files that reach a change and passed with it in a process that had run them before. */
const passedBy = new Map<string, { test: string; took: number }[]>();
const changed = new Set(sample.map(({ file }) => file));
const inOrder = filesUnder('tests/unit', /\.test\.ts$/)
	.filter((test) => [...changed].some((file) => isOwn(test, file)))
	// Tests of the core are quick, and what everything stands on is reached by all others: those come first. Then the nearest: what they
	// notice nobody else has to be asked for.
	.sort(
		(a, b) =>
			Number(b.startsWith('tests/unit/core/')) - Number(a.startsWith('tests/unit/core/')) ||
			b.split('/').length - a.split('/').length
	);
let looked = 0;
const STARTING_MS = 5000;

/** The tests of a file that reach each place; null: all may. */
function whoReaches({ inHooks, perTest }: Loaded): Map<string, string[] | null> {
	const found = new Map<string, string[] | null>();
	for (const [test, places] of Object.entries(perTest))
		for (const place of places) found.set(place, [...(found.get(place) ?? []), test]);
	for (const place of inHooks) found.set(place, null);
	return found;
}

async function lookAt(runner: Runner, test: string): Promise<void> {
	const loaded = await runner.load(test, LOADING_MS);
	if (!loaded) return;
	const all = Object.values(loaded.took).reduce((sum, one) => sum + one, 0);
	const reach = whoReaches(loaded);
	/** Tests that pass by themselves, a second time and without those before them. */
	const sound = new Map<string, boolean>();
	for (const mutant of sample) {
		const fresh = runner.isAtLoad(mutant.id);
		const tests = fresh ? null : reach.get(mutant.id);
		if (noticed.has(mutant.id) || tests === undefined) continue;
		reached.add(mutant.id);
		const took = tests
			? tests.reduce((sum, one) => sum + loaded.took[one]!, 0)
			: all + (fresh ? STARTING_MS : 0);
		const before = spent.get(mutant.id) ?? 0;
		if (!isOwn(test, mutant.file) || before + took > TESTING_MS) continue;
		spent.set(mutant.id, before + took);
		const within = took * 4 + 10_000;
		if (!fresh && (await runner.passes(mutant.id, tests, within))) {
			passedBy.set(mutant.id, [
				...(passedBy.get(mutant.id) ?? []),
				{ test, took: all + STARTING_MS }
			]);
			continue;
		}
		const key = JSON.stringify(tests);
		if (!fresh && !sound.has(key)) sound.set(key, await runner.passes(null, tests, within));
		if (
			(!fresh && sound.get(key)) ||
			!(await runner.passesAlone(mutant.id, test, within + STARTING_MS))
		)
			noticed.add(mutant.id);
	}
}

const rest = [...inOrder];
await Promise.all(
	Array.from({ length: Math.min(availableParallelism(), 4) }, async () => {
		const runner = new Runner();
		for (let test = rest.shift(); test !== undefined; test = rest.shift()) {
			if (noticed.size === sample.length) break;
			await lookAt(runner, test);
			console.error(
				`${String(++looked).padStart(4)} of ${inOrder.length}: ${noticed.size} of ${sample.length} noticed (${test})`
			);
		}
		runner.end();
	})
);
// What a process keeps from the run before, as a day it has looked up, hides a change: those that are left are tried once more from the start.
const left = sample.filter(({ id }) => !noticed.has(id) && passedBy.has(id));
await Promise.all(
	Array.from({ length: Math.min(availableParallelism(), 4) }, async () => {
		const runner = new Runner();
		for (let mutant = left.shift(); mutant !== undefined; mutant = left.shift()) {
			let time = TESTING_MS;
			for (const { test, took } of passedBy.get(mutant.id)!) {
				if (noticed.has(mutant.id) || (time -= took) < 0) break;
				if (!(await runner.passesAlone(mutant.id, test, took * 4 + 10_000))) noticed.add(mutant.id);
			}
		}
	})
);
const survived = sample.filter(({ id }) => !noticed.has(id));

survived.sort((a, b) => a.file.localeCompare(b.file) || a.line - b.line);
for (const one of survived) {
	const untouched = reached.has(one.id) ? '' : ' (no test comes here)';
	console.log(
		`${one.file}:${one.line} ${one.kind}: ${one.was.slice(0, 60)} → ${one.becomes}${untouched}`
	);
}
console.log();
for (const path of paths) {
	const asked = sample.filter(under(path));
	const count = asked.filter(({ id }) => noticed.has(id)).length;
	console.log(
		`${path}: ${count} of ${asked.length} changes noticed (${Math.round((100 * count) / asked.length)} %), of ${mutants.filter(under(path)).length} that could be made`
	);
}
process.exit(0);
