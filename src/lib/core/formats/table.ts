// A table out of a CSV file of any make: encoding, separator and columns are found by looking at it.
import { parse } from 'csv-parse/browser/esm/sync';

export interface Table {
	headings: string[];
	/** Cells by column; `line` counts from 1 in the file. */
	rows: { line: number; cells: string[] }[];
	separator: string;
	encoding: 'utf-8' | 'windows-1252' | 'utf-16le';
}

/** The file is no table; the message says why, in words. */
export class TableError extends Error {}

const SEPARATORS = [',', ';', '\t', '|'];
export const LARGEST_FILE = 25 * 1024 * 1024;
const MOST_ROWS = 200_000;

/** @throws TableError */
export function readTable(bytes: Uint8Array): Table {
	if (bytes.length === 0) throw new TableError('The file is empty.');
	if (bytes.length > LARGEST_FILE)
		throw new TableError(
			`The file has ${Math.ceil(bytes.length / 1024 / 1024)} MB. At most 25 MB can be read: split it.`
		);
	const { text, encoding } = decode(bytes);
	if (text.includes('\0')) throw new TableError('This is no text file. Save it as CSV first.');
	const separator = guessSeparator(text);
	let records: { record: string[]; info: { lines: number } }[];
	try {
		records = parse(text, {
			delimiter: separator,
			bom: true,
			relaxQuotes: true,
			relaxColumnCount: true,
			skipEmptyLines: true,
			trim: true,
			info: true
		}) as unknown as typeof records;
	} catch {
		throw new TableError('The file could not be read as a table: a quotation mark is not closed.');
	}
	const [head, ...rest] = records;
	if (!head || rest.length === 0)
		throw new TableError('There is a heading and nothing under it, or not even that.');
	if (rest.length > MOST_ROWS)
		throw new TableError(`At most ${MOST_ROWS.toLocaleString('en-GB')} rows at once.`);
	return {
		headings: head.record,
		rows: rest
			.filter(({ record }) => record.some((cell) => cell !== ''))
			.map(({ record, info }) => ({ line: info.lines, cells: record })),
		separator,
		encoding
	};
}

function decode(bytes: Uint8Array): Pick<Table, 'encoding'> & { text: string } {
	if (bytes[0] === 0xff && bytes[1] === 0xfe)
		return { text: new TextDecoder('utf-16le').decode(bytes), encoding: 'utf-16le' };
	try {
		return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'utf-8' };
	} catch {
		// Spreadsheets on Windows still save like this.
		return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'windows-1252' };
	}
}

/** The separator that splits the first lines most evenly. */
function guessSeparator(text: string): string {
	const lines = text
		.slice(0, 20_000)
		.split(/\r?\n/)
		.filter((line) => line.trim() !== '')
		.slice(0, 10);
	const scored = SEPARATORS.map((separator) => {
		const counts = lines.map((line) => unquoted(line).split(separator).length);
		const least = Math.min(...counts);
		return { separator, least, most: Math.max(...counts) };
	});
	scored.sort((a, b) => b.least - a.least || b.most - a.most);
	return scored[0]!.separator;
}

function unquoted(line: string): string {
	return line.replace(/"[^"]*"/g, '');
}

export interface Column<Field extends string> {
	field: Field;
	label: string;
	/** Headings it goes by, in lower case without signs. */
	names: string[];
	required?: boolean;
}

const plain = (text: string) =>
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
		for (const wanted of column.names) {
			const at = names.findIndex((name, index) => !taken.has(index) && fits(name, wanted));
			if (at >= 0) {
				found[column.field] = at;
				taken.add(at);
				return;
			}
		}
	};
	for (const column of columns) take(column, (name, wanted) => name === wanted);
	for (const column of columns) take(column, (name, wanted) => ` ${name} `.includes(` ${wanted} `));
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
