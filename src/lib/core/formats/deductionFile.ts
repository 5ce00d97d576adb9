// Payment and deduction statements out of a CSV file: columns found by their headings, problems line by line.
import { taxMonthEnd } from '../calendar/manipulation';
import type { PlainDate } from '../calendar/types';
import type { Minor } from '../money/types';
import { readAmount, readDate } from './bank/line';
import { matchColumns, readTable, TableError, type Column } from './table';

export interface StatedDeduction {
	/** The line of the file. */
	line: number;
	contractor: string;
	/** The 5th its tax month ends on. */
	monthEnd: PlainDate;
	gross: Minor;
	materials: Minor;
	deduction: Minor;
	reference: string;
}

export interface DeductionFile {
	rows: StatedDeduction[];
	problems: { line: number; message: string }[];
}

type Field = 'contractor' | 'month' | 'gross' | 'materials' | 'deduction' | 'reference';

const COLUMNS: Column<Field>[] = [
	{
		field: 'contractor',
		label: 'Contractor',
		names: ['contractor', 'contractor name', 'from', 'name']
	},
	{
		field: 'month',
		label: 'Tax month',
		names: [
			'tax month',
			'tax month end',
			'month end',
			'period end',
			'month',
			'payment date',
			'date'
		]
	},
	{
		field: 'gross',
		label: 'Paid before the deduction',
		names: ['gross amount paid', 'gross amount', 'gross', 'amount paid', 'paid']
	},
	{ field: 'materials', label: 'Materials', names: ['cost of materials', 'materials'] },
	{
		field: 'deduction',
		label: 'Deducted',
		names: ['amount deducted', 'deduction', 'tax deducted', 'deducted', 'withheld']
	},
	{
		field: 'reference',
		label: 'Number',
		names: ['verification number', 'statement number', 'reference', 'number']
	}
];

const NEEDED: readonly Field[] = ['contractor', 'month', 'gross', 'deduction'];

/** @throws TableError where it is no table, or lacks a column that is needed */
export function readDeductionFile(bytes: Uint8Array): DeductionFile {
	const table = readTable(bytes);
	const columns = matchColumns(table.headings, COLUMNS);
	const lacking = COLUMNS.filter(
		({ field }) => NEEDED.includes(field) && columns[field] === undefined
	);
	if (lacking.length)
		throw new TableError(
			`No column is called “${lacking[0]!.label}” or the like. Needed are the contractor, the tax month, what was paid, and what was deducted.`
		);
	const file: DeductionFile = { rows: [], problems: [] };
	for (const { line, cells } of table.rows) {
		const cell = (field: Field) => {
			const at = columns[field];
			return at === undefined ? '' : (cells[at] ?? '').trim();
		};
		const day = readDate(cell('month'), 'dmy');
		const gross = readAmount(cell('gross'));
		const materials = cell('materials') === '' ? 0n : readAmount(cell('materials'));
		const deduction = readAmount(cell('deduction'));
		const wrong =
			cell('contractor') === ''
				? 'the contractor is missing'
				: day === null
					? `“${cell('month')}” is no day in a tax month`
					: gross === null || gross < 0n
						? `“${cell('gross')}” is no amount paid`
						: deduction === null || deduction < 0n
							? `“${cell('deduction')}” is no amount deducted`
							: materials === null || materials < 0n
								? `“${cell('materials')}” is no cost of materials`
								: deduction > gross
									? 'more was deducted than paid'
									: null;
		if (wrong !== null || !day || gross === null || materials === null || deduction === null)
			file.problems.push({ line, message: wrong ?? 'it cannot be read' });
		else
			file.rows.push({
				line,
				contractor: cell('contractor'),
				monthEnd: taxMonthEnd(day),
				gross,
				materials,
				deduction,
				reference: cell('reference').slice(0, 60)
			});
	}
	return file;
}
