// Runs tests again and again, each time with another change made to the code (see mutate.ts). What is changed is asked for wherever it
// stands, so what is loaded once stays loaded, for the tests of the next file too.
import Mocha from 'mocha';
import { pathToFileURL } from 'node:url';

const [seed, only] = process.argv.slice(2);
const { mochaHooks } = await import(pathToFileURL(seed).href);
const stryker = (globalThis.__stryker__ ??= {});
const counted = () => (stryker.mutantCoverage ??= { static: {}, perTest: {} });
/** The places passed since this was last asked, outside of tests. */
function places() {
	const found = Object.keys(counted().static);
	counted().static = {};
	return found;
}

/** @param {string} file */
async function load(file) {
	const mocha = new Mocha({ bail: true, timeout: 600_000, reporter: class {} });
	mocha.cleanReferencesAfterRun(false);
	mocha.rootHooks({
		...mochaHooks,
		beforeEach() {
			stryker.currentTestId = this.currentTest.fullTitle();
		},
		afterEach() {
			mochaHooks.afterEach.call(this);
			stryker.currentTestId = undefined;
		}
	});
	mocha.addFile(file);
	await mocha.loadFilesAsync();
	return mocha;
}

/** Runs those of these names, or all. Whether they passed. @param {Mocha} mocha @param {string[] | null} [only] */
function run(mocha, only = null) {
	const plain = (/** @type {string} */ text) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
	mocha.grep(only ? new RegExp(`^(?:${only.map(plain).join('|')})$`) : /(?:)/);
	return new Promise((resolve) => mocha.run((failures) => resolve(failures === 0)));
}

if (only) process.exit((await run(await load(only))) ? 0 : 1);

/** @type {Mocha} */
let mocha;
async function begin(file) {
	mocha = await load(file);
	const atLoad = places();
	counted().perTest = {};
	const took = {};
	const runs = new Promise((resolve) => {
		mocha.grep(/(?:)/);
		mocha
			.run((failures) => resolve(failures === 0))
			.on('test end', (test) => (took[test.fullTitle()] = test.duration ?? 0));
	});
	const passed = await runs;
	return {
		passed,
		atLoad,
		inHooks: places(),
		perTest: Object.fromEntries(
			Object.entries(counted().perTest).map(([test, found]) => [test, Object.keys(found)])
		),
		took
	};
}
async function change(mutant, tests) {
	stryker.activeMutant = mutant;
	// For what is started by the tests.
	process.env.__STRYKER_ACTIVE_MUTANT__ = mutant;
	const passed = await run(mocha, tests);
	delete stryker.activeMutant;
	delete process.env.__STRYKER_ACTIVE_MUTANT__;
	return { passed };
}
process.on('message', async ({ file, mutant, tests }) =>
	process.send(
		file
			? await begin(file)
			: mutant
				? await change(mutant, tests)
				: { passed: await run(mocha, tests) }
	)
);
process.on('disconnect', () => process.exit());
