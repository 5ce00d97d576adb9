// Sets up all that tests need, and tests: types, lint, import directions, build, units, whole journeys.
// Ends with the one line `N passed, N failed`. `all` takes the long journeys as well, which are marked `@long`.
import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync } from 'node:fs';
import { takeRoom } from './room.mjs';
import { ensurePackages, installFromDebian } from './setup.mjs';

ensurePackages();
if (!process.env.CHROMIUM && !existsSync('/usr/bin/chromium-headless-shell'))
	installFromDebian(
		['chromium-headless-shell'],
		'the tests drive the real interface',
		// Slower, and as good.
		existsSync('/usr/bin/chromium')
	);

takeRoom();
// What is laid out for several tests is laid out once in a run.
process.env.AXIOMETER_TEST_RUN = `${process.pid}-${Date.now()}`;
const all = process.argv[2] === 'all';
if (all) process.env.AXIOMETER_TEST_ALL = '1';
const quick = all ? [] : ['--tsgo'];

/** Started themselves rather than through what looks for them, which takes as long as some of them. */
const TOOLS = {
	depcruise: 'node_modules/dependency-cruiser/bin/dependency-cruise.mjs',
	eslint: 'node_modules/eslint/bin/eslint.js',
	mocha: 'node_modules/mocha/bin/mocha.js',
	oxlint: 'node_modules/oxlint/bin/oxlint',
	prettier: 'node_modules/prettier/bin/prettier.cjs',
	svelteCheck: 'node_modules/svelte-check/bin/svelte-check',
	svelteKit: 'node_modules/@sveltejs/kit/svelte-kit.js'
};

let passed = 0;
let failed = 0;

/**
 * A check that either holds or does not; what it says is shown when it has ended.
 * @param {string} name @param {string[]} command the script and what it is told
 */
async function check(name, command) {
	const run = spawn(process.execPath, command, { stdio: ['ignore', 'pipe', 'pipe'] });
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
	const run = spawn(process.execPath, [TOOLS.mocha, ...options], {
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

/**
 * What is not as it was twenty commits ago, or everything where there is no such commit: to read all of it takes as long as the build. The long
 * run does.
 */
function touched() {
	const git = (/** @type {string[]} */ ...words) =>
		execFileSync('git', words, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] })
			.split('\0')
			.filter(Boolean);
	try {
		if (all) return ['.'];
		return [
			...git('diff', '--name-only', '--diff-filter=d', '-z', 'HEAD~20'),
			...git('ls-files', '--others', '--exclude-standard', '-z')
		];
	} catch {
		return ['.'];
	}
}
const looked = touched();
/** Pages and parts among it. */
const drawn = looked.filter((one) => one === '.' || /\.svelte(\.ts)?$/.test(one));

/** @type {[name: string, command: string[]][]} Those that take longest first. */
const CHECKS = [
	['build', ['scripts/build.mjs']],
	[
		'types',
		// The compiler that is written anew, in half of the time; the long run and `npm run check` take the one that has the last word.
		[TOOLS.svelteCheck, '--tsconfig', './tsconfig.json', '--fail-on-warnings', ...quick]
	],
	[
		'format',
		[TOOLS.prettier, '--check', '--cache', '--ignore-unknown', '--log-level', 'warn', ...looked]
	],
	[
		'lint of pages and parts',
		[
			...[TOOLS.eslint, '--cache', '--cache-location', 'node_modules/.cache/eslint'],
			...['--pass-on-no-patterns', ...drawn]
		]
	],
	['lint of all else', [TOOLS.oxlint, '--deny-warnings']],
	[
		'import directions',
		[
			TOOLS.depcruise,
			...['src', 'stand-ins', 'demo', 'scripts'],
			...['--config', '.dependency-cruiser.cjs']
		]
	]
];
async function checks() {
	for (let next = CHECKS.shift(); next; next = CHECKS.shift()) await check(...next);
}

await check('generated types', [TOOLS.svelteKit, 'sync']);
// Two at a time, as there are at least two cores.
await Promise.all([checks(), checks()]);
await suite('units', []);
const short = all ? [] : ['--grep', '@long', '--invert'];
await suite('journeys', ['--config', '.mocharc.e2e.json', ...short]);

console.log(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed === 0 && passed > 0 ? 0 : 1;
