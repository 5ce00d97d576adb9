// What a fresh machine lacks is put in place: the compiler for SQLite's binding, the packages, the build.
// Runs on Node alone, before anything is installed.
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** @param {string} command */
function has(command) {
	return spawnSync('sh', ['-c', `command -v ${command}`], { stdio: 'ignore' }).status === 0;
}

/**
 * Installs Debian packages, or says exactly what to run where that is not allowed.
 * @param {string[]} packages
 * @param {string} why
 * @param {boolean} spare it goes on without them
 */
export function installFromDebian(packages, why, spare = false) {
	const command = `apt-get update && apt-get install -y ${packages.join(' ')}`;
	const root = process.getuid?.() === 0;
	const sudo =
		!root && has('sudo') && spawnSync('sudo', ['-n', 'true'], { stdio: 'ignore' }).status === 0;
	if (has('apt-get') && (root || sudo)) {
		console.log(`Installing ${packages.join(', ')} (${why}) …`);
		const prefix = root ? '' : 'sudo -n ';
		const result = spawnSync(
			'sh',
			[
				'-c',
				`${prefix}apt-get update -q && ${prefix}env DEBIAN_FRONTEND=noninteractive apt-get install -y -q ${packages.join(' ')}`
			],
			{
				stdio: ['ignore', 'ignore', 'inherit'],
				// What can be done without is not waited for where no mirror answers.
				...(spare ? { timeout: 180_000 } : {})
			}
		);
		if (result.status === 0) return;
	}
	if (spare) return;
	console.error(
		`${packages.join(', ')} must be installed (${why}). As root, run:\n\n    ${command}\n\nThen start this again.`
	);
	process.exit(1);
}

function hashOf(/** @type {string} */ file) {
	return createHash('sha256').update(readFileSync(file)).digest('hex');
}

/** Installs the npm packages unless they are those of the lock file already. */
export function ensurePackages() {
	const stamp = 'node_modules/.axiometer-installed';
	const wanted = hashOf('package-lock.json');
	if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
	const missing = [
		!has('python3') && 'python3',
		!has('make') && 'make',
		!has('g++') && 'g++'
	].filter((one) => typeof one === 'string');
	if (missing.length) installFromDebian(missing, 'SQLite is compiled once, on this machine');
	console.log('Installing packages; SQLite is compiled once, which takes about two minutes …');
	const result = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
		stdio: ['ignore', 'ignore', 'inherit']
	});
	if (result.status !== 0) {
		console.error('The packages could not be installed. See above, and start this again.');
		process.exit(1);
	}
	try {
		execFileSync(process.execPath, ['-e', "new (require('better-sqlite3'))(':memory:')"], {
			stdio: 'ignore'
		});
	} catch {
		const rebuilt = spawnSync('npm', ['rebuild', 'better-sqlite3', 'esbuild'], {
			stdio: ['ignore', 'ignore', 'inherit']
		});
		if (rebuilt.status !== 0) process.exit(1);
	}
	writeFileSync(stamp, wanted);
}

const SOURCES = [
	'src',
	'static',
	'stand-ins',
	'package-lock.json',
	'svelte.config.js',
	'vite.config.ts'
];

/** A stamp of every source's size and time, so that an unchanged tree is not built again. */
function sourceStamp() {
	const hash = createHash('sha256');
	/** @param {string} path */
	const visit = (path) => {
		const stat = statSync(path);
		if (stat.isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
		else hash.update(`${path}:${stat.size}:${stat.mtimeMs}\n`);
	};
	for (const source of SOURCES) visit(source);
	return hash.digest('hex');
}

/** Builds the app unless the build is of these very sources. */
export function ensureBuild() {
	const stamp = 'build/.axiometer-sources';
	const wanted = sourceStamp();
	if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
	console.log('Building …');
	// The app, and then the stand-ins beside it.
	for (const config of ['vite.config.ts', 'stand-ins/vite.config.ts']) {
		const result = spawnSync(
			'npx',
			['--no-install', 'vite', 'build', '--config', config, '--logLevel', 'warn'],
			{ stdio: ['ignore', 'ignore', 'inherit'] }
		);
		if (result.status !== 0) {
			console.error('The build failed. See above.');
			process.exit(1);
		}
	}
	mkdirSync('build', { recursive: true });
	writeFileSync(stamp, wanted);
}
