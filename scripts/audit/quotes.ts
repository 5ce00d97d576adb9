// Quotes: what went out and what was accepted is what was put there, a yes stands beside one version and one job, and a deposit
// that counts as paid has its money.
import { createHash } from 'node:crypto';
import { rowsOf, type DataFile } from './reading';

const sha256 = (content: Buffer) => createHash('sha256').update(content).digest('hex');

export const wrongQuotes = (file: DataFile): string[] => [
	...rowsOf<{ number: string; n: number; sha256: string; content: Buffer }>(
		file,
		`select q.number, v.n, v.sha256, v.content from quote_versions v join quotes q on q.id = v.quote_id`
	).flatMap(({ number, n, sha256: said, content }) =>
		sha256(content) === said ? [] : [`version ${n} of ${number} is not what went out`]
	),
	...rowsOf<{ number: string; said: string; record: Buffer }>(
		file,
		`select q.number, a.record_sha256 as said, a.record from acceptances a join quotes q on q.id = a.quote_id where a.record is not null`
	).flatMap(({ number, said, record }) =>
		sha256(record) === said ? [] : [`the record of ${number} is not what was accepted`]
	),
	...rowsOf<{ number: string }>(
		file,
		`select q.number from quotes q where (q.state in ('accepted', 'cancelled')) <> exists (select 1 from acceptances a where a.quote_id = q.id)`
	).map(({ number }) => `${number} is accepted without a yes, or the other way round`),
	...rowsOf<{ number: string }>(
		file,
		`select q.number from acceptances a join quotes q on q.id = a.quote_id
			where not exists (select 1 from quote_versions v where v.id = a.version_id and v.quote_id = a.quote_id)
				or not exists (select 1 from jobs j where j.id = q.job_id)`
	).map(({ number }) => `what was accepted of ${number} has no version of it, or no job`),
	...rowsOf<{ number: string | null; id: number }>(
		file,
		`select q.id, q.number from quotes q where ((q.sent > 0) <> (q.number is not null)
				and not exists (select 1 from removals r where r.customer_id = q.customer_id))
			or q.sent <> (select count(*) from quote_versions v where v.quote_id = q.id)
			or q.sent <> coalesce((select max(v.n) from quote_versions v where v.quote_id = q.id), 0)`
	).map(({ number, id }) => `the versions of ${number ?? `the quote ${id}`} do not add up`),
	...rowsOf<{ running: number }>(
		file,
		`select s.next - 1 as running from number_series s where s.kind = 'quote'
			and s.next - 1 <> (select count(*) from quotes where running is not null)`
	).map(({ running }) => `of ${running} quote numbers that were taken some are missing`),
	...rowsOf<{ number: string }>(
		file,
		`select q.number from deposit_requests d join quotes q on q.id = d.quote_id
			left join payments p on p.id = d.payment_id
			where (d.state in ('paid', 'invoiced')) <> (p.id is not null) or p.amount <> d.amount - d.deduction
				or d.deduction < 0 or d.deduction >= d.amount
				or (d.state = 'invoiced') <> exists (select 1 from documents i where i.id = d.document_id and i.state = 'issued')`
	).map(({ number }) => `the deposit of ${number} does not agree with its payment and invoice`)
];
