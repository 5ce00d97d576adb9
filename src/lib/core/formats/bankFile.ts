// A bank statement file of any kind as lines: what it is, is found by looking at it.
import type { Minor } from '../money/types';
import { matchColumns, readTable, TableError, type Column, type Table } from './table';
import { readAmount, readDate, type BankLine, saysTakenBack } from './bankLine';
import { readCamt053 } from './camt053';
import { readOfx } from './ofx';

export type BankField = 'date' | 'amount' | 'in' | 'out' | 'text' | 'payer';
export type CsvLayout = Partial<Record<BankField, number>> & {
	/** How its dates are written. */
	dates?: 'dmy' | 'mdy' | 'ymd';
};

export interface BankFile {
	format: 'csv' | 'ofx' | 'camt.053';
	lines: BankLine[];
	/** Rows that could not be read, with what is wrong. */
	problems: { line: number; message: string }[];
	/** CSV only: the headings, for the layout to be looked at and remembered. */
	headings: string[];
	layout: CsvLayout | null;
	/** A few rows as they stand. */
	sample: string[][];
}

export const BANK_COLUMNS: Column<BankField>[] = [
	{
		field: 'date',
		label: 'Date',
		names: [
			'date',
			'transaction date',
			'posting date',
			'booking date',
			'booked',
			'datum',
			'value date'
		]
	},
	{
		field: 'in',
		label: 'Money in',
		names: [
			'money in',
			'paid in',
			'credit',
			'credit amount',
			'in',
			'deposit',
			'credits',
			'received'
		]
	},
	{
		field: 'out',
		label: 'Money out',
		names: [
			'money out',
			'paid out',
			'debit',
			'debit amount',
			'out',
			'withdrawal',
			'debits',
			'spent'
		]
	},
	{ field: 'amount', label: 'Amount', names: ['amount', 'value', 'sum', 'betrag', 'amount gbp'] },
	{
		field: 'text',
		label: 'Text',
		names: [
			'description',
			'reference',
			'details',
			'memo',
			'narrative',
			'text',
			'transaction description',
			'particulars'
		]
	},
	{
		field: 'payer',
		label: 'Who',
		names: ['name', 'payee', 'counter party', 'counterparty', 'from', 'payer', 'who', 'merchant']
	}
];

/** @throws TableError with words for the person. */
export function readBankFile(bytes: Uint8Array, layout: CsvLayout | null = null): BankFile {
	const head = new TextDecoder('latin1').decode(bytes.subarray(0, 4000));
	if (/<Document[\s>]|camt\.053|BkToCstmrStmt/.test(head))
		return whole('camt.053', readCamt053(bytes));
	if (/OFXHEADER|<OFX>|<\?OFX/i.test(head)) return whole('ofx', readOfx(bytes));
	if (/^\s*(\ufeff|ï»¿)?\s*</.test(head))
		throw new TableError('This is XML, but no bank statement that is known here (camt.053, OFX).');
	return readCsv(readTable(bytes), layout);
}

function whole(format: BankFile['format'], lines: BankLine[]): BankFile {
	return { format, lines, problems: [], headings: [], layout: null, sample: [] };
}

function readCsv(table: Table, given: CsvLayout | null): BankFile {
	const layout = given ?? guessLayout(table);
	const problems: BankFile['problems'] = [];
	const lines: BankLine[] = [];
	if (layout.date === undefined) throw new TableError('No column holds dates. Is there a heading?');
	if (layout.amount === undefined && layout.in === undefined)
		throw new TableError('No column holds what came in. Is there a heading?');
	const cell = (cells: string[], field: BankField) =>
		layout[field] === undefined ? '' : (cells[layout[field]!] ?? '').trim();
	for (const { line, cells } of table.rows) {
		const date = readDate(cell(cells, 'date'), layout.dates ?? 'dmy');
		const amount = amountOf(cell(cells, 'amount'), cell(cells, 'in'), cell(cells, 'out'));
		if (date === null || amount === null) {
			problems.push({
				line,
				message:
					date === null ? 'It has no date that can be read.' : 'It has no amount that can be read.'
			});
			continue;
		}
		if (amount === 0n) continue;
		lines.push({
			account: '',
			date,
			amount,
			text: cell(cells, 'text').replace(/\s+/g, ' ').slice(0, 500),
			payer: cell(cells, 'payer').slice(0, 140),
			reversal: saysTakenBack(cell(cells, 'text'))
		});
	}
	return {
		format: 'csv',
		lines,
		problems,
		headings: table.headings,
		layout,
		sample: table.rows.slice(0, 5).map((row) => row.cells)
	};
}

/** Columns by their headings, and where those say nothing by what stands in them. */
export function guessLayout(table: Table): CsvLayout {
	const layout: CsvLayout = matchColumns(table.headings, BANK_COLUMNS);
	const rows = table.rows.slice(0, 50).map((row) => row.cells);
	const columns = table.headings.map((_, index) => rows.map((cells) => cells[index] ?? ''));
	const most = (cells: string[], fits: (cell: string) => boolean) => {
		const filled = cells.filter((cell) => cell.trim() !== '');
		return filled.length > 0 && filled.filter(fits).length >= filled.length * 0.8;
	};
	const looksLikeDate = (text: string) =>
		readDate(text, 'dmy') !== null || readDate(text, 'mdy') !== null;
	// A heading that says so is believed where at least some of what stands under it are dates.
	if (layout.date === undefined || !columns[layout.date]!.some(looksLikeDate)) {
		const at = columns.findIndex((cells) => most(cells, looksLikeDate));
		if (at >= 0) layout.date = at;
		else delete layout.date;
	}
	if (layout.amount === undefined && layout.in === undefined) {
		const at = columns.findIndex(
			(cells, index) => index !== layout.date && most(cells, (text) => readAmount(text) !== null)
		);
		if (at >= 0) layout.amount = at;
	}
	if (layout.date !== undefined) {
		const dates = columns[layout.date]!.filter(Boolean);
		layout.dates = dates.every((text) => /^\d{4}/.test(text))
			? 'ymd'
			: dates.some((text) => readDate(text, 'dmy') === null) &&
				  dates.every((text) => readDate(text, 'mdy') !== null)
				? 'mdy'
				: 'dmy';
	}
	return layout;
}

function amountOf(amount: string, came: string, went: string): Minor | null {
	if (amount !== '') return readAmount(amount);
	const credit = came === '' ? 0n : readAmount(came);
	const debit = went === '' ? 0n : readAmount(went);
	if (credit === null || debit === null) return null;
	if (came === '' && went === '') return null;
	return credit - (debit < 0n ? -debit : debit);
}
