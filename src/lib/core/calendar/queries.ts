// Questions about plain dates.
import { parseDate } from '@internationalized/date';
import type { PlainDate } from './types';

const DATE = /^([0-9]{4})-([0-9]{2})-([0-9]{2})$/;
const DAYS = [31, 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31];

/** Whether the text is `YYYY-MM-DD` and that day exists (years 1 to 9999). */
export function isPlainDate(text: string): boolean {
	const match = DATE.exec(text);
	if (!match) return false;
	const [year, month, day] = [Number(match[1]), Number(match[2]), Number(match[3])];
	if (year < 1 || month < 1 || month > 12 || day < 1) return false;
	const leap = year % 4 === 0 && (year % 100 !== 0 || year % 400 === 0);
	return day <= (month === 2 && leap ? 29 : DAYS[month - 1]!);
}

/** The later of two days: what follows something is never dated before it, although a clock may go back. */
export const laterOf = (a: PlainDate, b: PlainDate): PlainDate => (a > b ? a : b);

/** Whole days from `from` to `to`; negative where `to` is earlier. */
export function daysBetween(from: PlainDate, to: PlainDate): number {
	return parseDate(to).compare(parseDate(from));
}
