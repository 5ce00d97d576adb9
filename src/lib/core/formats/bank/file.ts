// A bank statement file of any kind as lines: what it is, is found by looking at it.
import { unreadable } from '../kinds';
import { readRecords, TableError } from '../table';
import { decode, declaredEncoding } from '../text';
import { readCamt053 } from './camt053';
import type { CsvLayout } from './headings';
import { readCsvStatement, type CsvStatement } from './csv';
import type { BankLine, LeftOut, Statements } from './line';
import { ofxEncoding, readOfx } from './ofx';

export interface BankFile {
	format: 'csv' | 'ofx' | 'camt053';
	encoding: string;
	/** Whose statement it is, where the file names one account; empty otherwise. */
	account: string;
	/** What it is kept in, ISO 4217; null where the file names none. */
	currency: string | null;
	lines: BankLine[];
	/** What is no line, with the reason. */
	leftOut: LeftOut[];
	/** CSV only: the columns, to be looked at and remembered. */
	csv: Pick<CsvStatement, 'headings' | 'layout' | 'sample'> | null;
}

/**
 * Reads a bank statement for an account in pounds.
 * @throws TableError with words for the person: what the file is instead, what is wrong with it, or that it is kept in another currency
 */
export function readBankFile(bytes: Uint8Array, layout: CsvLayout | null = null): BankFile {
	if (bytes.length === 0) throw new TableError('The file is empty.');
	const packed = unreadable.binary(bytes);
	if (packed) throw new TableError(packed);
	const written = decode(bytes, declaredEncoding(bytes) || ofxEncoding(bytes));
	const { encoding } = written;
	const head = written.text.slice(0, 6000);
	if (/BkToCstmrStmt|camt\.053/.test(head))
		return inPounds({ format: 'camt053', encoding, csv: null }, readCamt053(written.text));
	if (/OFXHEADER|<OFX>|<\?OFX/i.test(head))
		return inPounds({ format: 'ofx', encoding, csv: null }, readOfx(written.text));
	const other = unreadable.written(written.text);
	if (other) throw new TableError(other);
	const {
		headings,
		layout: found,
		sample,
		...read
	} = readCsvStatement(readRecords(bytes, written), layout);
	return inPounds({ format: 'csv', encoding, csv: { headings, layout: found, sample } }, read);
}

const nameOf = (code: string) => {
	if (!/^[A-Z]{3}$/.test(code)) return `“${code.slice(0, 20)}”, which is no currency`;
	const name = new Intl.DisplayNames('en-GB', { type: 'currency' }).of(code);
	return name && name !== code ? `${name} (${code})` : code;
};

/** Pounds are not what other money is: a file in another currency is refused, and rows in one are left out. */
function inPounds(kind: Pick<BankFile, 'format' | 'encoding' | 'csv'>, read: Statements): BankFile {
	const currencies = new Set(read.lines.map((line) => line.currency || read.currency));
	if (read.lines.length === 0 && read.currency) currencies.add(read.currency);
	currencies.delete('');
	const [only] = currencies;
	if (only !== undefined && currencies.size === 1 && only !== 'GBP')
		throw new TableError(
			`This statement is kept in ${nameOf(only)}. Your books are in pounds: bring in the statement of your sterling account.`
		);
	const foreign = (line: BankLine) => (line.currency || read.currency || 'GBP') !== 'GBP';
	return {
		...kind,
		account: read.account,
		currency: currencies.has('GBP') ? 'GBP' : (only ?? null),
		lines: read.lines.filter((line) => !foreign(line)),
		leftOut: [
			...read.leftOut,
			...read.lines.filter(foreign).map((line) => ({
				row: line.row,
				why: `It is in ${nameOf(line.currency || read.currency)}; your books are in pounds.`
			}))
		].sort((a, b) => a.row - b.row)
	};
}
