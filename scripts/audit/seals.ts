// What was frozen at issue stands there still: a document, its lines and its PDF under one seal, and the sums that follow.
import { createHash } from 'node:crypto';
import { rowsOf, type Check, type DataFile } from './reading';

type Row = Record<string, string | number | null>;

const DOCUMENT = [
	'id',
	'kind',
	'key',
	'origin',
	'about_id',
	'corrects_id',
	'customer_id',
	'customer_name',
	'number',
	'running',
	'issue_date',
	'sort_date',
	'tax_point',
	'due_date',
	'token',
	'frozen',
	'currency',
	'net',
	'vat_charged',
	'vat_reverse_charged',
	'total',
	'total_sterling',
	'deduction',
	'issued_at'
];
const LINE = [
	'position',
	'kind',
	'description',
	'quantity',
	'unit',
	'unit_price',
	'vat',
	'cost',
	'net',
	'document_discount',
	'retention',
	'taxable',
	'without_vat',
	'job_id',
	'tax_point'
];

const valuesOf = (row: Row, columns: readonly string[]) => columns.map((column) => row[column]);

function* sealed(file: DataFile): Generator<Row> {
	const documents = file
		.prepare(
			`select d.*, f.name as file_name, f.sha256 from documents d
			left join document_files f on f.document_id = d.id where d.state = 'issued' order by d.issued_at, d.id`
		)
		.iterate();
	yield* documents as IterableIterator<Row>;
}

/** docs/architecture.md: the seal is the hash of the row, its lines in order, and the hash of its PDF. */
export const brokenSeals: Check = (file) => {
	const lines = new Map<number, unknown[][]>();
	for (const row of file
		.prepare('select * from document_lines order by document_id, position')
		.iterate() as IterableIterator<Row>) {
		const id = row.document_id as number;
		const list = lines.get(id) ?? [];
		list.push(valuesOf(row, LINE));
		lines.set(id, list);
	}
	const found: string[] = [];
	let sealing = false;
	for (const row of sealed(file)) {
		// Documents from before there were seals have none; none comes after one that has.
		if (row.seal === null && !sealing) continue;
		sealing = true;
		const content = [
			valuesOf(row, DOCUMENT),
			lines.get(row.id as number) ?? [],
			[row.file_name ?? null, row.sha256 ?? null]
		];
		const seal = createHash('sha256').update(JSON.stringify(content)).digest('hex');
		if (seal !== row.seal)
			found.push(`${row.number}: it, its lines or its PDF are not what was issued`);
	}
	return found;
};

/** Lines, a PDF or a number without a document that is issued. */
export const strays: Check = (file) => [
	...rowsOf<{ id: number }>(
		file,
		`select distinct document_id as id from document_lines where document_id not in
			(select id from documents where state = 'issued')`
	).map(({ id }) => `document ${id} has frozen lines and is not issued`),
	...rowsOf<{ id: number }>(
		file,
		`select document_id as id from document_files where document_id not in
			(select id from documents where state = 'issued')`
	).map(({ id }) => `document ${id} has a PDF and is not issued`),
	...rowsOf<{ id: number }>(
		file,
		"select id from documents where (number is not null or running is not null) and state <> 'issued'"
	).map(({ id }) => `document ${id} has a number and is not issued`),
	...rowsOf<{ kind: string; next: number; last: number }>(
		file,
		`select s.kind, s.next, max(d.running) as last from number_series s join documents d on d.kind = s.kind
		group by s.kind having max(d.running) >= s.next`
	).map(({ kind, next, last }) => `${kind} numbers go on with ${next}, and ${last} is taken`)
];

/** What a document was computed to, as it was frozen, against its columns and its lines. */
export const wrongSums: Check = (file) =>
	rowsOf<{ number: string; frozen: string; line: string }>(
		file,
		`select d.number, json_extract(d.frozen, '$.sums') as frozen,
			json_array(d.net, d.vat_charged, d.vat_reverse_charged, d.total, d.deduction,
				(select coalesce(sum(retention), 0) from document_lines where document_id = d.id)) as line
		from documents d where d.state = 'issued' and json_extract(d.frozen, '$.sums') is not null`
	)
		.filter(({ frozen, line }) => frozen !== line)
		.map(
			({ number }) => `${number}: net, VAT, total, deduction or retention are not the frozen ones`
		);

/** A message that went out stands in the outbox, and the outbox says when. */
export const wrongMessages: Check = (file) => [
	...rowsOf<{ number: string }>(
		file,
		`select d.number from trail t join documents d on d.id = t.document_id where t.what = 'delivered'
			and not exists (select 1 from mails m where m.document_id = d.id and m.state in ('sent', 'unsure'))
			and not exists (select 1 from texts x where x.document_id = d.id and x.state = 'sent')
		group by d.id`
	).map(({ number }) => `${number}: it was delivered, and no message of it is in the outbox`),
	...rowsOf<{ id: number }>(
		file,
		"select id from mails where (state = 'sent') <> (sent_at is not null)"
	).map(({ id }) => `message ${id} is sent without a time, or has one without being sent`)
];
