// Photos and files beside the data file: each that a row names is there, and holds what its name says.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { rowsOf, type DataFile } from './reading';

/** `folder` is where the files lie: beside the data file, unless it is a copy somewhere else. */
export function wrongStoredFiles(file: DataFile, folder = dirname(file.name)): string[] {
	return rowsOf<{ name: string; stored: string; whose: string }>(
		file,
		`select f.name, f.stored, coalesce('job “' || j.title || '”', 'customer “' || c.name || '”', 'document ' || coalesce(d.number, d.id), 'cost ' || f.purchase_id, 'quote ' || coalesce(q.number, q.id), 'enquiry ' || f.enquiry_id) as whose
			from files f left join jobs j on j.id = f.job_id left join customers c on c.id = f.customer_id left join documents d on d.id = f.document_id left join quotes q on q.id = f.quote_id
			where f.stored is not null`
	).flatMap(({ name, stored, whose }) => {
		const place = join(folder, 'files', stored.slice(0, 2), stored);
		if (!existsSync(place)) return [`the file “${name}” of the ${whose} is missing`];
		const holds = createHash('sha256').update(readFileSync(place)).digest('hex');
		return holds === stored ? [] : [`the file “${name}” of the ${whose} is not what was put there`];
	});
}
