// An export goes out from a process of its own: it reads one state of the books, keeps nobody waiting, and is gone with whoever asked for it.
import { must } from '../../actor';
import { spawn } from 'node:child_process';
import type { World } from '../../world';
import { folderOf } from '../../db/fileStore';
import { bodyOf } from '../../streamed';

/** The ZIP of all, or of what is kept of one customer, as it is made. */
export function exported(world: World, customerId?: number): ReadableStream {
	must('owner');
	const documents = world.db.$client
		.prepare('select count(*) from documents')
		.pluck()
		.get() as number;
	const child = spawn(
		process.execPath,
		[
			// The names in the archive are held until its end, and nothing else: a process of 300 MB for 100,000 documents.
			`--max-old-space-size=${Math.max(160, 100 + Math.ceil(documents / 1000))}`,
			'--max-semi-space-size=4',
			'--import',
			'tsx',
			'scripts/export.ts',
			...(customerId === undefined ? [] : [`--customer=${customerId}`])
		],
		{
			env: { ...process.env, AXIOMETER_DATA: folderOf(world.db) },
			stdio: ['ignore', 'pipe', 'inherit']
		}
	);
	// Broken off in the middle, the download must not look whole.
	child.on('exit', (status) => {
		if (status !== 0) child.stdout.destroy(new Error('the export was broken off'));
	});
	child.stdout.on('close', () => child.kill());
	return bodyOf(child.stdout);
}
