// The demo business, laid out once for all tests of a run: whoever comes second takes a copy of it.
import { execFileSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, renameSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const make = (env: NodeJS.ProcessEnv) =>
	execFileSync('npx', ['--no-install', 'tsx', 'demo/make.ts'], {
		env: { ...env, AXIOMETER_DEMO_PAPERS: 'one' },
		stdio: 'inherit'
	});

/** Fills the data folder of `env`. Where no run is named nothing is kept, so that nothing stale is ever taken. */
export function layOutDemo(env: NodeJS.ProcessEnv): void {
	const run = process.env.AXIOMETER_TEST_RUN;
	if (!run) return void make(env);
	const folder = env.AXIOMETER_DATA!;
	const shared = join(tmpdir(), `axiometer-demo-${run}`);
	const ready = join(shared, 'data');
	if (mine(shared)) {
		make(env);
		cpSync(folder, join(shared, 'copying'), { recursive: true });
		renameSync(join(shared, 'copying'), ready);
		return;
	}
	// Somebody else is at it.
	for (let waited = 0; !existsSync(ready) && waited < 300; waited++)
		Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 1000);
	cpSync(ready, folder, { recursive: true });
}

/** Whether nobody was here before. */
function mine(folder: string): boolean {
	try {
		mkdirSync(folder);
		return true;
	} catch {
		return false;
	}
}
