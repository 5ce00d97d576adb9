// Runs tests again and again, each time with another change made to the code (see mutate.ts). What is changed is asked for wherever it
// stands, so what is loaded once stays loaded, for the tests of the next file too.
import Mocha from 'mocha';
import { pathToFileURL } from 'node:url';

/** What is asked: to load the tests of a file, or to run these of them (all: null), with this change or with none. */
export interface Question {
	file?: string;
	mutant?: string | null;
	tests?: string[] | null;
}
export interface Loaded {
	passed: boolean;
	/** Places that are passed while the file is loaded, by what prepares its tests, and by each of them. */
	atLoad: string[];
	inHooks: string[];
	perTest: Record<string, string[]>;
	/** Milliseconds of each. */
	took: Record<string, number>;
}

/** What changed code asks for, and where it says that it was passed. */
interface Changes {
	activeMutant?: string;
	currentTestId?: string | undefined;
	mutantCoverage?: {
		static: Record<string, number>;
		perTest: Record<string, Record<string, number>>;
	};
}
const changes = ((globalThis as unknown as { __stryker__?: Changes }).__stryker__ ??= {});
const counted = () => (changes.mutantCoverage ??= { static: {}, perTest: {} });
/** The places passed since this was last asked, outside of tests. */
function places(): string[] {
	const found = Object.keys(counted().static);
	counted().static = {};
	return found;
}

/** Says nothing. */
class Silent extends Mocha.reporters.Base {
	override epilogue(): void {}
}

async function load(file: string): Promise<Mocha> {
	const mocha = new Mocha({ bail: true, timeout: 600_000, reporter: Silent });
	mocha.cleanReferencesAfterRun(false);
	mocha.rootHooks({
		beforeEach(this: Mocha.Context) {
			changes.currentTestId = this.currentTest!.fullTitle();
		},
		afterEach() {
			changes.currentTestId = undefined;
		}
	} as Mocha.RootHookObject);
	mocha.addFile(file);
	await mocha.loadFilesAsync();
	return mocha;
}

const plain = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
/** Runs those of these names, or all. @returns whether they passed */
function run(
	mocha: Mocha,
	tests: readonly string[] | null,
	ended?: (test: Mocha.Test) => void
): Promise<boolean> {
	mocha.grep(tests ? new RegExp(`^(?:${tests.map(plain).join('|')})$`) : /(?:)/);
	return new Promise((resolve) => {
		const runner = mocha.run((failures) => resolve(failures === 0));
		if (ended) runner.on('test end', ended);
	});
}

let mocha: Mocha;
async function begin(file: string): Promise<Loaded> {
	mocha = await load(file);
	const atLoad = places();
	counted().perTest = {};
	const took: Record<string, number> = {};
	const passed = await run(mocha, null, (test) => (took[test.fullTitle()] = test.duration ?? 0));
	const perTest = Object.fromEntries(
		Object.entries(counted().perTest).map(([test, found]) => [test, Object.keys(found)])
	);
	return { passed, atLoad, inHooks: places(), perTest, took };
}
async function change(mutant: string | null, tests: string[] | null): Promise<boolean> {
	if (mutant) {
		changes.activeMutant = mutant;
		// For what is started by the tests.
		process.env.__STRYKER_ACTIVE_MUTANT__ = mutant;
	}
	const passed = await run(mocha, tests);
	delete changes.activeMutant;
	delete process.env.__STRYKER_ACTIVE_MUTANT__;
	return passed;
}

const [seed, only] = process.argv.slice(2);
// Chance is the same for every run.
await import(pathToFileURL(seed!).href);
if (only) process.exit((await run(await load(only), null)) ? 0 : 1);
process.on('message', async ({ file, mutant = null, tests = null }: Question) =>
	process.send!(file ? await begin(file) : { passed: await change(mutant, tests) })
);
process.on('disconnect', () => process.exit());
