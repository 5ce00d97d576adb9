// Photos and files beside the data file: each that a row names is there, and holds what its name says.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { rowsOf, type DataFile } from './reading';

/** `folder` is where the files lie: beside the data file, unless it is a copy somewhere else. */
export function wrongStoredFiles(file: DataFile, folder = dirname(file.name)): string[] {
	return rowsOf<{ name: string; stored: string; job: string }>(
		file,
		`select f.name, f.stored, j.title as job from job_files f join jobs j on j.id = f.job_id where f.stored is not null`
	).flatMap(({ name, stored, job }) => {
		const place = join(folder, 'files', stored.slice(0, 2), stored);
		if (!existsSync(place)) return [`the file “${name}” of the job “${job}” is missing`];
		const holds = createHash('sha256').update(readFileSync(place)).digest('hex');
		return holds === stored
			? []
			: [`the file “${name}” of the job “${job}” is not what was put there`];
	});
}
