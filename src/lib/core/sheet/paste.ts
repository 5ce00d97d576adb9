// Rows copied from a spreadsheet: cells with tabs between them become lines.
import Papa from 'papaparse';
import { readTypedNumber } from '../money/typed';
import { blankLine } from './blank';
import type { SheetLine, SheetRow } from './types';

type Column = 'description' | 'quantity' | 'unit' | 'unitPrice' | 'none';

const HEADINGS: [RegExp, Column][] = [
	[/^(description|item|work|what|details?|text)$/i, 'description'],
	[/^(qty|quantity|hours|number|amount of)$/i, 'quantity'],
	[/^(unit|per|uom)$/i, 'unit'],
	[/^(unit ?price|price|rate|cost each|each)(,? ?£)?$/i, 'unitPrice'],
	[/^(total|amount|sum|net)(,? ?£)?$/i, 'none']
];

/**
 * The lines that pasted text stands for; null where it is ordinary text for one cell.
 * Columns are found by their headings, or by what is in them: text, quantity, unit, price.
 */
export function linesFromCells(
	text: string,
	newId: () => string,
	above?: SheetRow
): SheetLine[] | null {
	const rows = splitCells(text).filter((cells) => cells.some((cell) => cell !== ''));
	if (!rows.some((cells) => cells.length > 1)) return null;
	const named = columnsByHeading(rows[0]!);
	const columns = named ?? columnsByContent(rows);
	return (named ? rows.slice(1) : rows).map((cells) => {
		const line = blankLine(newId(), above);
		for (const [index, column] of columns.entries()) {
			const cell = cells[index] ?? '';
			if (column !== 'none' && cell !== '') line[column] = cell;
		}
		return line;
	});
}

/** Cells may be quoted, with tabs, line breaks and doubled quotes inside; a lone quote is an inch mark. */
function splitCells(text: string): string[][] {
	const { data, errors } = Papa.parse<string[]>(text, { delimiter: '\t' });
	const rows = errors.some(({ type }) => type === 'Quotes')
		? text.split(/\r?\n/).map((line) => line.split('\t'))
		: data;
	return rows.map((cells) => cells.map((cell) => cell.trim()));
}

function columnsByHeading(cells: string[]): Column[] | null {
	const columns = cells.map(
		(cell): Column => HEADINGS.find(([pattern]) => pattern.test(cell))?.[1] ?? 'none'
	);
	return columns.includes('description') &&
		columns.some((column) => column === 'unitPrice' || column === 'quantity')
		? columns
		: null;
}

function columnsByContent(rows: string[][]): Column[] {
	const width = Math.max(...rows.map((cells) => cells.length));
	const filled = (column: number) =>
		rows.flatMap((cells) => (cells[column] ? [cells[column]] : []));
	const isNumeric = (column: number) =>
		filled(column).length > 0 &&
		filled(column).every(
			(cell) => readTypedNumber(cell, { decimals: 4, negative: true, digits: 15 }).ok
		);
	const indices = Array.from({ length: width }, (_, column) => column);
	const texts = indices.filter((column) => filled(column).length > 0 && !isNumeric(column));
	const numbers = indices.filter(isNumeric);
	// Of the numbers, the first is a quantity where there are two or more; a third is a total and left out.
	const [quantity, unitPrice] = numbers.length > 1 ? numbers : [undefined, numbers[0]];
	return indices.map((column) => {
		if (column === texts[0]) return 'description';
		if (column === texts[1]) return 'unit';
		if (column === quantity) return 'quantity';
		return column === unitPrice ? 'unitPrice' : 'none';
	});
}
