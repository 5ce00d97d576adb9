// How soon pages answer on a phone: Chromium slowed six times, nothing cached, against a bare page of the same framework
// that is built for it. Needs the build (`npm run build`).
import { execFileSync, spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import Sqlite from 'better-sqlite3';
import { runApp } from '../tests/support/app';
import { openBrowser } from '../tests/support/browser';

const SLOWED = 6;
const TIMES = 7;
const PORT = 4990;
/** Asked for: within twice the bare page. */
const MOST = 2;

/** An app of one page that says that it has come to life, and nothing else. */
function makeBare(): string {
	const folder = mkdtempSync(join(tmpdir(), 'axiometer-bare-'));
	const write = (path: string, text: string) => writeFileSync(join(folder, path), text);
	mkdirSync(join(folder, 'src/routes'), { recursive: true });
	symlinkSync(resolve('node_modules'), join(folder, 'node_modules'));
	write('package.json', '{"type":"module"}');
	write(
		'svelte.config.js',
		"import adapter from '@sveltejs/adapter-node';\nexport default { kit: { adapter: adapter() } };\n"
	);
	write(
		'vite.config.js',
		"import { sveltekit } from '@sveltejs/kit/vite';\nexport default { plugins: [sveltekit()] };\n"
	);
	write(
		'src/app.html',
		'<!doctype html><html lang="en"><head><title>Bare</title><meta name="viewport" content="width=device-width" />%sveltekit.head%</head><body><div>%sveltekit.body%</div></body></html>'
	);
	write(
		'src/routes/+page.svelte',
		"<script>\n\timport { onMount } from 'svelte';\n\tonMount(() => (document.body.dataset.ready = ''));\n</script>\n<h1>Bare</h1>\n"
	);
	execFileSync(process.execPath, [resolve('node_modules/vite/bin/vite.js'), 'build'], {
		cwd: folder,
		stdio: 'ignore'
	});
	return folder;
}

const folder = makeBare();
const bare = spawn(process.execPath, ['build'], {
	cwd: folder,
	env: { ...process.env, PORT: String(PORT), HOST: '127.0.0.1' },
	stdio: 'ignore'
});
const app = await runApp({ AXIOMETER_DEMO: '1' }, (env) => {
	execFileSync('npx', ['--no-install', 'tsx', 'demo/make.ts'], { env, stdio: 'ignore' });
});
const db = new Sqlite(join(app.folder, 'axiometer.sqlite'), { readonly: true });
const job = db.prepare("select id from jobs where state = 'underWay' limit 1").pluck().get();
db.close();

const browser = await openBrowser();
try {
	const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
	const page = await context.newPage();
	await page.goto(`${app.origin}/sign-in`);
	await page.waitForSelector('body[data-ready]');
	await page.getByRole('button', { name: /Sign in as/ }).click();
	await page.waitForURL(`${app.origin}/`);
	const phone = await context.newCDPSession(page);
	await phone.send('Network.enable');
	await phone.send('Network.setCacheDisabled', { cacheDisabled: true });
	await phone.send('Emulation.setCPUThrottlingRate', { rate: SLOWED });

	const places = [
		['a bare page', `http://127.0.0.1:${PORT}/`],
		['Today', `${app.origin}/`],
		['a job', `${app.origin}/work/${job}`]
	] as const;
	const waits = new Map<string, number[]>(places.map(([name]) => [name, []]));
	// In turns, so that what else the machine does falls on all of them.
	for (let n = 0; n <= TIMES; n++)
		for (const [name, address] of places) {
			// What the page before has to tidy up is not this one's.
			await page.goto('about:blank');
			const began = performance.now();
			await page.goto(address, { waitUntil: 'commit' });
			await page.waitForSelector('body[data-ready]');
			// The first of each warms the server.
			if (n > 0) waits.get(name)!.push(performance.now() - began);
			await page.waitForLoadState('networkidle');
		}
	const median = (name: string) => waits.get(name)!.sort((a, b) => a - b)[TIMES >> 1]!;
	const base = median('a bare page');
	console.log(
		`a bare page answers after ${base.toFixed(0)} ms on a processor slowed ${SLOWED} times`
	);
	for (const [name] of places.slice(1)) {
		const ratio = median(name) / base;
		console.log(
			`${name}: ${median(name).toFixed(0)} ms, ${ratio.toFixed(2)} times that (asked: at most ${MOST})`
		);
	}
} finally {
	await browser.close();
	bare.kill();
	await app.end();
	rmSync(folder, { recursive: true, force: true });
}
