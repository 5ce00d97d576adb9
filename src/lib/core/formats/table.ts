// A table out of a CSV file of any make: encoding, separator and columns are found by looking at it.
import Papa from 'papaparse';
import { uncoverCell } from './cells';
import { decode, type Text } from './text';

/** Cells by column; `line` counts from 1 in the file. */
export interface Row {
	line: number;
	cells: string[];
}

/** The rows of a file, with whatever stands above its headings. */
export interface Records {
	rows: Row[];
	separator: string;
	encoding: string;
}

export interface Table extends Records {
	headings: string[];
}

/** The file is no table; the message says why, in words. */
export class TableError extends Error {}

const SEPARATORS = [',', ';', '\t', '|'];
export const LARGEST_FILE = 25 * 1024 * 1024;
const MOST_ROWS = 200_000;

/** @throws TableError */
export function readTable(bytes: Uint8Array): Table {
	const { rows, ...how } = readRecords(bytes);
	const [head, ...rest] = rows;
	if (!head || rest.length === 0)
		throw new TableError('There is a heading and nothing under it, or not even that.');
	return { ...how, headings: head.cells, rows: rest };
}

/** @throws TableError */
export function readRecords(bytes: Uint8Array, known?: Text): Records {
	if (bytes.length === 0) throw new TableError('The file is empty.');
	if (bytes.length > LARGEST_FILE)
		throw new TableError(
			`The file has ${Math.ceil(bytes.length / 1024 / 1024)} MB. At most 25 MB can be read: split it.`
		);
	const { text, encoding } = known ?? decode(bytes);
	if (text.includes('\0')) throw new TableError('This is no text file. Save it as CSV first.');
	// Spreadsheets say in a line of its own what separates the cells; its place stays, so that lines count as they stand.
	const said = /^\ufeff?"?sep=(.)"?[^\n\r]*/i.exec(text);
	const body = said ? text.slice(said[0].length) : text;
	const separator = said ? said[1]! : guessSeparator(body);
	const rows: Row[] = [];
	let open = false;
	let line = 1;
	let read = 0;
	Papa.parse<string[]>(body, {
		delimiter: separator,
		step: ({ data, errors, meta }, parser) => {
			open ||= errors.some(({ code }) => code === 'MissingQuotes');
			const cells = data.map((cell) => cell.trim());
			if (cells.some((cell) => cell !== '')) rows.push({ line, cells });
			line += breaksIn(body, read, meta.cursor, meta.linebreak);
			read = meta.cursor;
			if (open || rows.length > MOST_ROWS + 1) parser.abort();
		}
	});
	if (open)
		throw new TableError('The file could not be read as a table: a quotation mark is not closed.');
	if (rows.length > MOST_ROWS + 1)
		throw new TableError(`At most ${MOST_ROWS.toLocaleString('en-GB')} rows at once.`);
	return { rows, separator, encoding };
}

/** How many lines end between two places of a text. */
function breaksIn(text: string, from: number, to: number, linebreak: string): number {
	let count = 0;
	for (
		let at = text.indexOf(linebreak, from);
		at >= 0 && at < to;
		at = text.indexOf(linebreak, at + linebreak.length)
	)
		count++;
	return count;
}

/** The separator that splits most of the first lines, and those most evenly. */
function guessSeparator(text: string): string {
	const lines = text
		.slice(0, 20_000)
		.split(/\r?\n|\r/)
		.filter((line) => line.trim() !== '')
		.slice(0, 30);
	const scored = SEPARATORS.map((separator) => {
		const counts = lines
			.map((line) => unquoted(line).split(separator).length)
			.sort((a, b) => a - b);
		return { separator, middle: counts[counts.length >> 1] ?? 1, most: counts.at(-1) ?? 1 };
	});
	scored.sort((a, b) => b.middle - a.middle || b.most - a.most);
	return scored[0]!.separator;
}

function unquoted(line: string): string {
	return line.replace(/"[^"]*"/g, '');
}

export interface Column<Field extends string> {
	field: Field;
	label?: string;
	/** Headings it goes by, in lower case without signs; the likelier come first. */
	names: string[];
	/** Headings it goes by only where nothing else stands beside them. */
	alone?: string[];
	/** Headings that are something else, though they contain one of these words. */
	not?: RegExp;
	required?: boolean;
}

/** A heading in small letters, without signs. */
export const plain = (text: string): string =>
	text
		.toLowerCase()
		.normalize('NFD')
		.replace(/[^a-z0-9]+/g, ' ')
		.trim();

/**
 * Which column of the file holds which field: by its heading, whole first, then by a word of it.
 * A heading that stands twice serves the first field that wants it; no column serves two.
 */
export function matchColumns<Field extends string>(
	headings: readonly string[],
	columns: readonly Column<Field>[]
): Partial<Record<Field, number>> {
	const found: Partial<Record<Field, number>> = {};
	const taken = new Set<number>();
	const names = headings.map(plain);
	const take = (column: Column<Field>, fits: (name: string, wanted: string) => boolean) => {
		if (found[column.field] !== undefined) return;
		for (const wanted of [...column.names, ...(column.alone ?? [])]) {
			const at = names.findIndex(
				(name, index) => !taken.has(index) && fits(name, wanted) && !column.not?.test(name)
			);
			if (at >= 0) {
				found[column.field] = at;
				taken.add(at);
				return;
			}
		}
	};
	for (const column of columns) take(column, (name, wanted) => name === wanted);
	for (const column of columns)
		take(
			column,
			(name, wanted) => !column.alone?.includes(wanted) && ` ${name} `.includes(` ${wanted} `)
		);
	return found;
}

/** Headings that stand more than once, or not at all. */
export function oddHeadings(headings: readonly string[]): { double: string[]; unnamed: number } {
	const seen = new Map<string, number>();
	for (const heading of headings) seen.set(plain(heading), (seen.get(plain(heading)) ?? 0) + 1);
	return {
		double: headings.filter(
			(heading, index) =>
				heading !== '' &&
				seen.get(plain(heading))! > 1 &&
				headings.findIndex((other) => plain(other) === plain(heading)) === index
		),
		unnamed: headings.filter((heading) => heading === '').length
	};
}

export interface Fields<Field extends string> {
	rows: { line: number; values: Record<Field, string> }[];
	/** Headings that hold nothing that was looked for. */
	unread: string[];
}

/**
 * A table read by the names of its columns; a field without a column is empty.
 * @throws TableError where it is no table, or a column that is needed is not there
 */
export function readFields<Field extends string>(
	bytes: Uint8Array,
	columns: readonly Column<Field>[]
): Fields<Field> {
	const table = readTable(bytes);
	const at = matchColumns<Field>(table.headings, columns);
	for (const { field, label, required } of columns)
		if (required && at[field] === undefined) {
			const word = (label ?? field).toLowerCase();
			throw new TableError(
				`No column looks like the ${word}. Give its heading the word “${word}”.`
			);
		}
	const read = new Set(Object.values(at));
	return {
		unread: table.headings.filter((heading, index) => heading !== '' && !read.has(index)),
		rows: table.rows.map(({ line, cells }) => ({
			line,
			values: Object.fromEntries(
				columns.map(({ field }) => {
					const index = at[field];
					return [field, index === undefined ? '' : uncoverCell(cells[index] ?? '').trim()];
				})
			) as Record<Field, string>
		}))
	};
}
