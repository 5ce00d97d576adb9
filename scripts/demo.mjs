// Starts the demo business: set up from nothing the first time, up within seconds after that.
import { existsSync, rmSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { ensureBuild, ensurePackages } from './setup.mjs';

const folder = process.env.AXIOMETER_DATA || '.demo';
process.env.AXIOMETER_DATA = folder;
process.env.AXIOMETER_DEMO = '1';
ensurePackages();
ensureBuild();
if (!existsSync(`${folder}/complete`)) {
	console.log('Laying out the demo business …');
	rmSync(folder, { recursive: true, force: true });
	const made = spawnSync('npx', ['--no-install', 'tsx', 'demo/make.ts'], {
		stdio: ['ignore', 'inherit', 'inherit']
	});
	if (made.status !== 0) process.exit(1);
}
const { launch } = await import('./launch.mjs');
await launch({ demo: true });
