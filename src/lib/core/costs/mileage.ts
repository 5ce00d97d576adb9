// What driving costs at the flat rates for simplified expenses (ITTOIA 2005 s.94D to 94F): cars and vans, by tax year.
import { divideRounded, parseDecimal, powerOfTen } from '../money/decimal';
import type { Minor } from '../money/types';

/** Miles of a tax year at the first rate, and both rates, in pence a mile. */
const FIRST_MILES = 10_000n;
const FIRST_RATE = 45n;
const LATER_RATE = 25n;

/**
 * @param miles driven, a decimal text of at most two places
 * @param before miles of the same tax year before it, likewise
 * @returns pence, rounded to the nearest
 */
export function mileageCost(miles: string, before = '0'): Minor {
	const hundredths = (text: string): bigint => {
		const { units, scale } = parseDecimal(text)!;
		return units * powerOfTen(2 - scale);
	};
	const first = FIRST_MILES * 100n;
	const driven = hundredths(miles);
	const already = hundredths(before);
	const left = already >= first ? 0n : first - already;
	const atFirst = driven < left ? driven : left;
	return divideRounded(atFirst * FIRST_RATE + (driven - atFirst) * LATER_RATE, 100n);
}

/** The day on which the tax year of a day began. @param date `YYYY-MM-DD` */
export const taxYearStart = (date: string): string => {
	const year = Number(date.slice(0, 4));
	return date.slice(5) >= '04-06' ? `${year}-04-06` : `${year - 1}-04-06`;
};
