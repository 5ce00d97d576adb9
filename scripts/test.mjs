// Sets up all that tests need, and tests: types, lint, import directions, build, units, whole journeys.
// Ends with the one line `N passed, N failed`. `all` takes the long journeys as well, which are marked `@long`.
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensurePackages, installFromDebian } from './setup.mjs';

ensurePackages();
if (!process.env.CHROMIUM && !existsSync('/usr/bin/chromium-headless-shell'))
	installFromDebian(
		['chromium-headless-shell'],
		'the tests drive the real interface',
		// Slower, and as good.
		existsSync('/usr/bin/chromium')
	);

// What is laid out for several tests is laid out once in a run.
const run = `${process.pid}-${Date.now()}`;
process.env.AXIOMETER_TEST_RUN = run;
const all = process.argv[2] === 'all';
if (all) process.env.AXIOMETER_TEST_ALL = '1';

let passed = 0;
let failed = 0;

/**
 * A check that either holds or does not; what it says is shown when it has ended.
 * @param {string} name @param {string[]} command
 */
async function check(name, command) {
	const run = spawn('npx', ['--no-install', ...command], { stdio: ['ignore', 'pipe', 'pipe'] });
	let said = '';
	for (const stream of [run.stdout, run.stderr]) stream.on('data', (part) => (said += part));
	const [status] = await once(run, 'close');
	console.log(`\n— ${name}\n${said.trimEnd()}`);
	if (status === 0) passed++;
	else failed++;
}

/** Tests that count themselves; what they say is passed on as it comes. @param {string} name @param {string[]} options */
async function suite(name, options) {
	console.log(`\n— ${name}`);
	const run = spawn('npx', ['--no-install', 'mocha', ...options], {
		stdio: ['ignore', 'pipe', 'inherit']
	});
	let said = '';
	run.stdout.on('data', (part) => {
		said += part;
		process.stdout.write(part);
	});
	const [status] = await once(run, 'close');
	const count = (/** @type {string} */ word) =>
		Number(new RegExp(`^\\s*(\\d+) ${word}`, 'm').exec(said)?.[1] ?? 0);
	passed += count('passing');
	failed += count('failing');
	// A suite that broke off has failed, whatever it counted.
	if (status !== 0 && count('failing') === 0) failed++;
	if (count('passing') + count('failing') === 0) failed++;
}

/** The build counts as one check. It runs by itself, so that the other core checks meanwhile. */
async function build() {
	const run = spawn(process.execPath, ['scripts/build.mjs'], { stdio: ['ignore', 'pipe', 'pipe'] });
	let said = '';
	for (const stream of [run.stdout, run.stderr]) stream.on('data', (part) => (said += part));
	const [status] = await once(run, 'close');
	console.log(`\n— build\n${said.trimEnd().split('\n').slice(-3).join('\n')}`);
	if (status === 0) passed++;
	else failed++;
}

async function checks() {
	await check('types', ['svelte-check', '--tsconfig', './tsconfig.json', '--fail-on-warnings']);
	await check('format', ['prettier', '--check', '--cache', '--log-level', 'warn', '.']);
}

async function directions() {
	await build();
	await check('import directions', [
		'depcruise',
		'src',
		'stand-ins',
		'demo',
		'scripts',
		'--config',
		'.dependency-cruiser.cjs'
	]);
	await check('lint', ['eslint', '--cache', '--cache-location', 'node_modules/.cache/eslint', '.']);
}

await check('generated types', ['svelte-kit', 'sync']);
// Two at a time, as there are at least two cores.
await Promise.all([checks(), directions()]);
await suite('units', []);
const short = all ? [] : ['--grep', '@long', '--invert'];
await suite('journeys', ['--config', '.mocharc.e2e.json', ...short]);

rmSync(join(tmpdir(), `axiometer-demo-${run}`), { recursive: true, force: true });
console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 && passed > 0 ? 0 : 1;
