// An export goes out from a process of its own: it reads one state of the books, keeps nobody waiting, and is gone with whoever asked for it.
import { spawn } from 'node:child_process';
import { Readable } from 'node:stream';
import type { World } from '../../world';
import { dataFolderOf } from './backups';

/** The ZIP of all, or of what is kept of one customer, as it is made. */
export function exported(world: World, customerId?: number): ReadableStream {
	const child = spawn(
		process.execPath,
		[
			'--import',
			'tsx',
			'scripts/export.ts',
			...(customerId === undefined ? [] : [`--customer=${customerId}`])
		],
		{
			env: { ...process.env, AXIOMETER_DATA: dataFolderOf(world) },
			stdio: ['ignore', 'pipe', 'inherit']
		}
	);
	// Broken off in the middle, the download must not look whole.
	child.on('exit', (status) => {
		if (status !== 0) child.stdout.destroy(new Error('the export was broken off'));
	});
	child.stdout.on('close', () => child.kill());
	return Readable.toWeb(child.stdout) as ReadableStream;
}
