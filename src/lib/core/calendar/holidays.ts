// Bank holidays of England and Wales: from 2020 on as they were proclaimed, later years by the rule.
import Holidays from 'date-holidays';
import { getDayOfWeek, parseDate } from '@internationalized/date';
import type { PlainDate } from './types';

const FIRST_YEAR = 2020;
const calendar = new Holidays('GB', 'ENG');
const byYear = new Map<number, ReadonlySet<PlainDate>>();

function bankHolidays(year: number): ReadonlySet<PlainDate> {
	let days = byYear.get(year);
	if (!days) {
		days = new Set(
			year < FIRST_YEAR
				? []
				: calendar
						.getHolidays(year)
						.filter((day) => day.type === 'public')
						.map((day) => day.date.slice(0, 10))
		);
		byYear.set(year, days);
	}
	return days;
}

/** Whether it is neither a Saturday, a Sunday nor a bank holiday. */
export function isWorkingDay(date: PlainDate): boolean {
	// Monday is 0 in British weeks.
	if (getDayOfWeek(parseDate(date), 'en-GB') >= 5) return false;
	return !bankHolidays(Number(date.slice(0, 4))).has(date);
}

/** The day itself where it is a working day, else the nearest one after it or before it; null beyond the year 9999. */
export function toWorkingDay(date: PlainDate, direction: 1 | -1): PlainDate | null {
	let day = date;
	while (!isWorkingDay(day)) {
		const next = parseDate(day).add({ days: direction }).toString();
		// The calendar ends here, and adding stays where it was.
		if (next === day) return null;
		day = next;
	}
	return day;
}
