// Changes to plain dates.
import { parseDate, startOfWeek } from '@internationalized/date';
import type { PlainDate } from './types';

export function addDays(date: PlainDate, days: number): PlainDate {
	return parseDate(date).add({ days }).toString();
}

/** The last day of the tax month (6th to 5th) a payment falls into (SI 2005/2045 reg. 2). */
export function taxMonthEnd(paidOn: PlainDate): PlainDate {
	const date = parseDate(paidOn);
	return (
		date.day <= 5 ? date.set({ day: 5 }) : date.add({ months: 1 }).set({ day: 5 })
	).toString();
}

/** The tax year a day falls into, by the 5 April it ends on. */
export function taxYearEnd(day: PlainDate): PlainDate {
	const year = Number(day.slice(0, 4)) + (day.slice(5) > '04-05' ? 1 : 0);
	return `${year}-04-05`;
}

/**
 * The day by which the contractor must have given its payment and deduction statement for a payment:
 * 14 days after the end of the tax month it falls into (SI 2005/2045 reg. 4(8)).
 */
export function statementDeadline(paidOn: PlainDate): PlainDate {
	return addDays(taxMonthEnd(paidOn), 14);
}

/** So many months later; a month's last day stands for a day it lacks. */
export function addMonths(date: PlainDate, months: number): PlainDate {
	return parseDate(date).add({ months }).toString();
}

/** The Monday of its week. */
export function mondayOf(date: PlainDate): PlainDate {
	return startOfWeek(parseDate(date), 'en-GB').toString();
}
