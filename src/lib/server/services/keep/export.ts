// All that is in the books, to be read without Axiometer: documents as PDF, tables as CSV with what their columns mean, photos and files, contacts, visits.
import { existsSync } from 'node:fs';
import type { Writable } from 'node:stream';
import { journalCsv } from '../ledger/journalCsv';
import { writeCalendar } from '../../../core/formats/icalendar';
import type { Database } from '../../db/connection';
import { folderOf, placeOf } from '../../db/fileStore';
import { exportCards } from '../customers/file';
import { archiveTo, type Archive } from '../../archive';
import { csvOf, explanation, EXPORTED } from './tables';

/** Which part of the books: all of them, or what is kept of one customer. */
export interface Part {
	/** Rows of a table, as SQL with `?` for the customer. */
	where(table: string): string | null;
	values(where: string): number[];
}

const ALL: Part = { where: () => '1', values: () => [] };

const README = `This is all that is in your books, to be read without Axiometer.

documents/    every document that was issued, as it was issued
letters/      reminders and statements that were made as a PDF
files/        photos and files, by job
tables/       every table as CSV, for any spreadsheet; "What each column means" explains them
journal.csv   the journal in full: each event with its postings
contacts.vcf  customers and their people, for any address book
visits.ics    visits, for any calendar

Passwords, sessions and secrets are not in it.
`;

/** Writes the archive. The caller gives a connection that reads one state of the books throughout. `at`: now, milliseconds. */
export async function exportAll(db: Database, out: Writable, at: number): Promise<void> {
	const archive = archiveTo(out, at);
	archive.text('Read me first.txt', () => [README]);
	addTables(archive, db, ALL);
	archive.text('journal.csv', () => journalCsv(db));
	archive.text('contacts.vcf', () => exportCards({ db }));
	archive.text('visits.ics', () => [calendarOf(db, at)]);
	addPapers(archive, db, ALL);
	addFiles(archive, db, ALL);
	await archive.end();
}

export function addTables(archive: Archive, db: Database, part: Part): void {
	archive.text('tables/What each column means.html', () => [explanation()]);
	for (const table of EXPORTED) {
		const where = part.where(table.name);
		if (where === null) continue;
		archive.text(`tables/${table.name}.csv`, () =>
			csvOf(db.$client, table, where, ...part.values(where))
		);
	}
}

/** Keys of rows, some at a time: what is fetched in between may use the connection. */
function* rowsBy<Row extends { id: number }>(
	db: Database,
	query: string,
	values: readonly number[]
): Generator<Row> {
	const statement = db.$client.prepare(`${query} limit 1000`);
	for (let after = 0; ;) {
		const rows = statement.all(...values, after) as Row[];
		yield* rows;
		if (rows.length < 1000) return;
		after = rows.at(-1)!.id;
	}
}

/** Documents, reminders and statements that lie there as PDF. */
export function addPapers(archive: Archive, db: Database, part: Part): void {
	const contentOf = (table: string, column: string, key: string) => {
		const statement = db.$client.prepare(`select ${column} from ${table} where ${key} = ?`).pluck();
		return (id: number) => () => statement.get(id) as Buffer | undefined;
	};
	const some = (table: string) => {
		const where = part.where(table) ?? '0';
		return { where, values: part.values(where) };
	};
	const documents = some('documents');
	const issued = contentOf('document_files', 'content', 'document_id');
	for (const row of rowsBy<{ id: number; number: string; day: string; name: string }>(
		db,
		`select id, number, issue_date as day, customer_name as name from documents
		 where (${documents.where}) and state = 'issued' and id > ? order by id`,
		documents.values
	))
		archive.bytes(
			`documents/${row.day.slice(0, 4)}/${row.number.replaceAll('/', '-')} ${row.name.replaceAll('/', '-')}.pdf`,
			issued(row.id)
		);
	for (const [table, day, what] of [
		['chase_messages', 'day', 'Reminder'],
		['statements', "coalesce(date(made_at / 1000, 'unixepoch'), '')", 'Statement']
	] as const) {
		const { where, values } = some(table);
		const content = contentOf(table, 'pdf', 'id');
		for (const row of rowsBy<{ id: number; day: string; name: string }>(
			db,
			`select id, ${day} as day, (select name from customers c where c.id = payer_id) as name from ${table}
			 where (${where}) and pdf is not null and id > ? order by id`,
			values
		))
			archive.bytes(
				`letters/${row.day} ${what} ${row.name.replaceAll('/', '-')}.pdf`,
				content(row.id)
			);
	}
	addSigned(archive, db, part);
}

/** Versions of quotes, what was accepted of them, job sheets, and what was signed. */
function addSigned(archive: Archive, db: Database, part: Part): void {
	const each = (table: string, column: string, folder: string, name: string) => {
		const where = part.where(table) ?? '0';
		const content = db.$client.prepare(`select ${column} from ${table} where id = ?`).pluck();
		for (const row of rowsBy<{ id: number; name: string }>(
			db,
			`select id, ${name} as name from ${table} where (${where}) and ${column} is not null and id > ? order by id`,
			part.values(where)
		))
			archive.bytes(
				`${folder}/${row.name.replaceAll('/', '-')}.pdf`,
				() => content.get(row.id) as Buffer | undefined
			);
	};
	const quote = '(select number from quotes q where q.id = quote_id)';
	each('quote_versions', 'content', 'quotes', `${quote} || ' version ' || n`);
	each('acceptances', 'record', 'quotes', `${quote} || ' as accepted'`);
	each('job_sheets', 'pdf', 'job sheets', 'number');
	each(
		'signatures',
		'record',
		'signed',
		`coalesce((select number from documents d where d.id = document_id), (select number from job_sheets s where s.id = sheet_id)) || ' signed by ' || name`
	);
}

/** Photos and files, by the names they were given. */
export function addFiles(archive: Archive, db: Database, part: Part): void {
	const where = part.where('files') ?? '0';
	const folder = folderOf(db);
	for (const row of rowsBy<{ id: number; name: string; stored: string; job: string }>(
		db,
		`select id, name, stored, coalesce(
			(select number || ' ' || title from jobs j where j.id = job_id),
			(select name from customers c where c.id = customer_id),
			(select coalesce(d.number, 'Draft ' || d.id) from documents d where d.id = document_id),
			(select 'Costs ' || p.date || ' ' || p.description from purchases p where p.id = purchase_id),
			(select coalesce(q.number, 'Quote ' || q.id) from quotes q where q.id = quote_id),
			(select 'Enquiry ' || e.id || ' ' || e.name from enquiries e where e.id = enquiry_id)) as job from files
		 where (${where}) and stored is not null and id > ? order by id`,
		part.values(where)
	)) {
		const place = placeOf(folder, row.stored);
		if (existsSync(place))
			archive.file(`files/${row.job.replaceAll('/', '-')}/${row.name.replaceAll('/', '-')}`, place);
	}
}

function calendarOf(db: Database, at: number): string {
	const rows = db.$client
		.prepare(
			`select v.id, v.date, v."from", v."to", v.note, j.title, c.name, coalesce(nullif(s.address, ''), c.address) as place
			 from visits v join jobs j on j.id = v.job_id join customers c on c.id = j.customer_id
			 left join sites s on s.id = j.site_id order by v.id`
		)
		.all() as Record<'date' | 'from' | 'to' | 'note' | 'title' | 'name' | 'place', string>[];
	return writeCalendar(
		rows.map((row) => ({
			...row,
			uid: `visit-${(row as unknown as { id: number }).id}@axiometer`,
			title: `${row.title}, ${row.name}`,
			writtenAt: at
		}))
	);
}
