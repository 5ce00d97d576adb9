// Cells of a file that is brought in: read, or refused with the reason in words.
import { readTypedDate } from '../calendar/conversion';
import type { PlainDate } from '../calendar/types';
import { parseMoney } from '../money/decimal';
import { readTypedNumber } from '../money/typed';
import type { Minor } from '../money/types';

/** Why a row is left out. */
export class RowError extends Error {}

const shown = (cell: string): string => `“${cell.slice(0, 40)}”`;

/** Minor units, not below zero; null where nothing stands there. @throws RowError */
export function readSum(cell: string, what: string): Minor | null {
	if (cell === '' || cell === '-' || cell === '–') return null;
	const read = readTypedNumber(cell, { decimals: 2 });
	if (read.ok) return parseMoney(read.text)!;
	throw new RowError(
		read.reason === 'negative'
			? `${what} is below zero. A credit is brought in as money held for the customer.`
			: `${what}: ${shown(cell)} is no sum.`
	);
}

/** Null where nothing stands there. @throws RowError */
export function readDay(cell: string, what: string, today: PlainDate): PlainDate | null {
	if (cell === '') return null;
	// Spreadsheets write a time behind it.
	const day = readTypedDate(cell.replace(/[ T]\d{1,2}:\d{2}(:\d{2}(\.\d+)?)?Z?$/, ''), today);
	if (day === null)
		throw new RowError(`${what}: ${shown(cell)} is no day. Write it as 3 Nov 2026.`);
	return day;
}

const YES = new Set(['yes', 'y', 'true', '1', 'x']);
const NO = new Set(['no', 'n', 'false', '0']);

/** Null where nothing stands there. @throws RowError */
export function readYes(cell: string, what: string): boolean | null {
	const word = cell.toLowerCase();
	if (word === '') return null;
	if (YES.has(word)) return true;
	if (NO.has(word)) return false;
	throw new RowError(`${what} is yes or no, not ${shown(cell)}.`);
}

/** @throws RowError where a text is too long for its place */
export function within(text: string, what: string, most: number): string {
	if (text.length > most) throw new RowError(`${what} is longer than ${most} characters.`);
	return text;
}
