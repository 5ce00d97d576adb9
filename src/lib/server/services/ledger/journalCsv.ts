// The journal as CSV, a posting a line, with the names that it is about.
import { stringify } from 'csv-stringify/sync';
import { safeCell } from '../../../core/formats/cells';
import type { Database } from '../../db/connection';

/** @param period its days; absent: all of it */
export function* journalCsv(
	db: Database,
	period: { from: string; to: string } = { from: '0000-00-00', to: '9999-99-99' }
): Generator<string> {
	yield stringify([
		['Date', 'Event', 'Document', 'Customer', 'Job', 'Account', 'Debit', 'Credit', 'Tax point']
	]);
	const rows = db.$client
		.prepare(
			`select e.date, e.event, d.number, c.name, j.number, l.account, l.sterling, l.tax_point
			 from journal_lines l join journal_entries e on e.id = l.entry_id
			 left join documents d on d.id = l.document_id left join customers c on c.id = l.customer_id
			 left join jobs j on j.id = l.job_id where e.date between ? and ? order by l.id`
		)
		.raw()
		.iterate(period.from, period.to) as IterableIterator<(string | number | null)[]>;
	const pounds = (pence: number) =>
		`${Math.floor(pence / 100)}.${String(pence % 100).padStart(2, '0')}`;
	for (const row of rows) {
		const amount = row[6] as number;
		const cells = row.map((cell) => (cell === null ? '' : safeCell(String(cell))));
		yield stringify([
			[
				...cells.slice(0, 6),
				amount > 0 ? pounds(amount) : '',
				amount < 0 ? pounds(-amount) : '',
				cells[7]!
			]
		]);
	}
}
