// Job sheets and signatures: what is finished is what was drawn, and what was signed is what lay there when it was signed.
import { createHash } from 'node:crypto';
import { rowsOf, type DataFile } from './reading';

const sha256 = (content: Buffer) => createHash('sha256').update(content).digest('hex');

export const wrongSignatures = (file: DataFile): string[] => [
	...rowsOf<{ number: string; sha256: string; pdf: Buffer }>(
		file,
		`select number, sha256, pdf from job_sheets where state = 'finished' and pdf is not null`
	).flatMap(({ number, sha256: said, pdf }) =>
		sha256(pdf) === said ? [] : [`job sheet ${number} is not what was drawn`]
	),
	...rowsOf<{ id: number }>(
		file,
		`select s.id from job_sheets s join jobs j on j.id = s.job_id
			where (s.state = 'finished') <> (s.number is not null) or (s.state = 'finished') <> (s.pdf is not null)
				or (s.state = 'finished') <> (s.frozen is not null) or s.number <> j.number || '/' || s.n`
	).map(({ id }) => `job sheet ${id} is neither written nor finished`),
	...rowsOf<{ name: string; said: string; record: Buffer }>(
		file,
		`select name, record_sha256 as said, record from signatures where record is not null`
	).flatMap(({ name, said, record }) =>
		sha256(record) === said ? [] : [`what ${name} signed is not what was drawn`]
	),
	...rowsOf<{ name: string }>(
		file,
		`select g.name from signatures g left join document_files f on f.document_id = g.document_id
			left join job_sheets s on s.id = g.sheet_id
			where g.of_sha256 is not coalesce(f.sha256, s.sha256) or (g.sheet_id is not null) <> (g.what = 'done')
				or coalesce(s.state, 'finished') <> 'finished'`
	).map(({ name }) => `${name} signed for something else than what lies there`)
];
