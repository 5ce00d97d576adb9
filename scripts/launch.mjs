// Runs the app and its stand-ins as child processes, waits until they answer, and ends them together.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { askHidden } from './asking.mjs';

/** Asks for the passphrase of the key that seals secrets, where it takes one. @param {string} folder */
async function passphraseOf(folder) {
	const file = join(folder, 'key');
	if (!existsSync(file) || !readFileSync(file, 'utf8').startsWith('AXKEY1:')) return '';
	return await askHidden('The passphrase of the key: ');
}

/** @param {{ demo?: boolean, dev?: boolean }} options */
export async function launch({ demo = false, dev = false }) {
	const checked = spawnSync(process.execPath, ['--import', 'tsx', 'scripts/config.ts'], {
		encoding: 'utf8'
	});
	if (checked.status !== 0) {
		console.error(checked.stderr.trim());
		process.exit(1);
	}
	/** @type {{ port: number, host: string, origin: string, dataFolder: string, proxies: number, standIns: boolean, inboxPort: number, cardPort: number, textPort: number }} */
	const config = JSON.parse(checked.stdout);
	mkdirSync(config.dataFolder, { recursive: true });
	const passphrase = process.env.AXIOMETER_PASSPHRASE ?? (await passphraseOf(config.dataFolder));

	const env = {
		...process.env,
		...(passphrase ? { AXIOMETER_PASSPHRASE: passphrase } : {}),
		NODE_ENV: dev ? 'development' : 'production',
		HOST: config.host,
		PORT: String(config.port),
		ORIGIN: config.origin,
		BODY_SIZE_LIMIT: '106M',
		// Behind a proxy the address it was asked from is the last that it wrote down itself.
		...(config.proxies
			? { ADDRESS_HEADER: 'x-forwarded-for', XFF_DEPTH: String(config.proxies) }
			: {}),
		SHUTDOWN_TIMEOUT: '5'
	};
	/** @type {import('node:child_process').ChildProcess[]} */
	const children = [];
	let ending = false;
	/** @param {number} code */
	const end = (code) => {
		if (ending) return;
		ending = true;
		for (const child of children) child.kill('SIGTERM');
		setTimeout(() => process.exit(code), 300);
	};
	/** @param {string} name @param {string[]} args */
	const run = (name, args) => {
		const child = spawn(process.execPath, args, { env, stdio: ['ignore', 'inherit', 'inherit'] });
		children.push(child);
		child.on('exit', (code) => {
			if (!ending) console.error(`${name} has ended (${code ?? 'signal'}).`);
			end(code ?? 1);
		});
	};
	process.on('SIGINT', () => end(0));
	process.on('SIGTERM', () => end(0));

	if (config.standIns) {
		for (const name of ['mail', 'card', 'text', 'bank'])
			run(
				`The ${name} stand-in`,
				dev ? ['--import', 'tsx', `stand-ins/${name}/main.ts`] : [`build/stand-ins/${name}.js`]
			);
	}
	if (dev)
		run('Axiometer', [
			'node_modules/vite/bin/vite.js',
			'dev',
			'--host',
			config.host,
			'--port',
			String(config.port),
			'--strictPort'
		]);
	else run('Axiometer', ['scripts/serve.mjs']);

	for (let tries = 0; tries < 600; tries++) {
		const up = await fetch(`http://${config.host}:${config.port}/health`).then(
			(response) => response.ok,
			() => false
		);
		if (up) break;
		await new Promise((resolve) => setTimeout(resolve, 50));
	}
	console.log(`\nAxiometer is at ${config.origin}`);
	if (demo) console.log('Sign in with the button there, or with the password: lime-and-plaster');
	if (config.standIns) {
		console.log(`Mail that it sends arrives at http://127.0.0.1:${config.inboxPort}`);
		console.log(`Text messages arrive at http://127.0.0.1:${config.textPort}`);
		console.log(
			`Cards are paid at the stand-in on port ${config.cardPort}; its page lists the cards it knows.`
		);
	}
	console.log('Ctrl C ends it.\n');
}
