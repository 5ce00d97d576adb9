// Runs tests again and again, each time with another change made to the code (see mutate.ts). What is changed is asked for wherever it
// stands, so what is loaded once stays loaded, for the tests of the next file too.
import Mocha from 'mocha';
import { pathToFileURL } from 'node:url';

const [seed, only] = process.argv.slice(2);
const { mochaHooks } = await import(pathToFileURL(seed).href);
const stryker = (globalThis.__stryker__ ??= {});
/** The places passed since this was last asked. */
function places() {
	const found = Object.keys(stryker.mutantCoverage?.static ?? {});
	if (stryker.mutantCoverage) stryker.mutantCoverage.static = {};
	return found;
}

/** @param {string} file */
async function load(file) {
	const mocha = new Mocha({ bail: true, timeout: 600_000, reporter: class {} });
	mocha.cleanReferencesAfterRun(false);
	mocha.rootHooks(mochaHooks);
	mocha.addFile(file);
	await mocha.loadFilesAsync();
	return mocha;
}

/** How many failed, and how long it took in milliseconds. @param {Mocha} mocha */
const run = (mocha) =>
	new Promise((resolve) => {
		const start = performance.now();
		mocha.run((failures) => resolve({ failures, took: performance.now() - start }));
	});

if (only) process.exit((await run(await load(only))).failures ? 1 : 0);

/** @type {Mocha} */
let mocha;
async function begin(file) {
	const began = performance.now();
	mocha = await load(file);
	const loading = performance.now() - began;
	const atLoad = places();
	const first = await run(mocha);
	const reached = places();
	const second = first.failures || reached.length === 0 ? first : await run(mocha);
	places();
	return {
		failed: first.failures > 0,
		again: second.failures === 0,
		took: second.took,
		loading,
		atLoad,
		reached
	};
}
async function change(mutant) {
	stryker.activeMutant = mutant;
	// For what is started by the tests.
	process.env.__STRYKER_ACTIVE_MUTANT__ = mutant;
	const { failures } = await run(mocha);
	delete stryker.activeMutant;
	delete process.env.__STRYKER_ACTIVE_MUTANT__;
	return { passed: failures === 0 };
}
process.on('message', async ({ file, mutant }) =>
	process.send(file ? await begin(file) : await change(mutant))
);
process.on('disconnect', () => process.exit());
