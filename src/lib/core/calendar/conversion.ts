// Dates as people read and type them.
import {
	CalendarDate,
	getDayOfWeek,
	parseDate,
	parseDateTime,
	toZoned
} from '@internationalized/date';
import { isPlainDate } from './queries';
import type { PlainDate } from './types';

const LONG = new Intl.DateTimeFormat('en-GB', {
	day: 'numeric',
	month: 'short',
	year: 'numeric',
	timeZone: 'UTC'
});
const WEEKDAY = new Intl.DateTimeFormat('en-GB', {
	weekday: 'long',
	day: 'numeric',
	month: 'long',
	timeZone: 'UTC'
});
const MONTH = new Intl.DateTimeFormat('en-GB', { month: 'long', timeZone: 'UTC' });

/** `January`, from 1 to 12. */
export function monthName(month: number): string {
	return MONTH.format(Date.UTC(2026, month - 1, 1));
}

/** `Jan`, of `2026-01` or any day in it. */
export function shortMonth(day: string): string {
	return monthName(Number(day.slice(5, 7))).slice(0, 3);
}

const MONTHS = Array.from({ length: 12 }, (_, index) =>
	monthName(index + 1)
		.slice(0, 3)
		.toLowerCase()
);

/** `3 Nov 2026`. */
export function displayDate(date: PlainDate): string {
	const known = displayed.get(date);
	if (known !== undefined) return known;
	// CLDR writes "Sept"; invoices in Britain read more evenly with three letters.
	const text = LONG.format(parseDate(date).toDate('UTC')).replace('Sept', 'Sep');
	if (displayed.size >= MOST_DISPLAYED) displayed.clear();
	displayed.set(date, text);
	return text;
}

/** Lists show the same days again and again, and formatting one takes longer than all else about a row. */
const displayed = new Map<PlainDate, string>();
const MOST_DISPLAYED = 2_000;

/** `Tuesday 24 November`. */
export function displayWeekday(date: PlainDate): string {
	return WEEKDAY.format(parseDate(date).toDate('UTC')).replace(',', '');
}

/** `09:41` on 24 Nov 2026 in London, from milliseconds since 1970. */
export function displayMoment(moment: number): string {
	return `${displayDate(londonDate(moment))}, ${londonTime(moment)}`;
}

const LONDON = new Intl.DateTimeFormat('en-CA', {
	timeZone: 'Europe/London',
	year: 'numeric',
	month: '2-digit',
	day: '2-digit',
	hour: '2-digit',
	minute: '2-digit',
	second: '2-digit',
	hourCycle: 'h23'
});

function londonParts(moment: number): Record<string, string> {
	return Object.fromEntries(LONDON.formatToParts(moment).map((part) => [part.type, part.value]));
}

/** The calendar day in London at a moment (milliseconds since 1970). */
export function londonDate(moment: number): PlainDate {
	const { year, month, day } = londonParts(moment);
	return `${year}-${month}-${day}`;
}

/** Milliseconds since 1970 of `2026-11-24T09:00` in London. */
export function londonMoment(text: string): number {
	return toZoned(parseDateTime(text), 'Europe/London').toDate().getTime();
}

/** `09:41` in London. */
export function londonTime(moment: number): string {
	const { hour, minute } = londonParts(moment);
	return `${hour}:${minute}`;
}

/**
 * Reads a day as people type it: `24/11/2026`, `24.11.26`, `24 nov`, `2026-11-24`, `today`, `tomorrow`, `fri`, `+14`.
 * A weekday is the one that comes next, today included; a missing year is the one that brings the day closest to `today`. Null where it is none.
 */
export function readTypedDate(typed: string, today: PlainDate): PlainDate | null {
	const text = typed.trim().toLowerCase();
	if (text === 'today') return today;
	if (text === 'yesterday' || text === 'tomorrow')
		return parseDate(today)
			.add({ days: text === 'tomorrow' ? 1 : -1 })
			.toString();
	const weekday = /^(mon|tue|wed|thu|fri|sat|sun)[a-z]*$/.exec(text);
	if (weekday) return comingWeekday(WEEKDAYS.indexOf(weekday[1]!), today);
	const offset = /^([+-])\s?(\d{1,4})$/.exec(text);
	if (offset) {
		const days = Number(offset[2]) * (offset[1] === '-' ? -1 : 1);
		return parseDate(today).add({ days }).toString();
	}
	if (isPlainDate(text)) return text;
	const match = /^(\d{1,2})[\s/.-]+(\d{1,2}|[a-z]{3,9})\.?(?:[\s/.,-]+(\d{4}|\d{2}))?$/.exec(text);
	if (!match) return null;
	const month = /^\d/.test(match[2]!)
		? Number(match[2])
		: MONTHS.indexOf(match[2]!.slice(0, 3)) + 1;
	const years = match[3]
		? [match[3].length === 2 ? 2000 + Number(match[3]) : Number(match[3])]
		: closestYears(today);
	const candidates = years
		.map((year) => [year, month, Number(match[1])] as const)
		.map(([y, m, d]) => [pad(y, 4), pad(m, 2), pad(d, 2)].join('-'))
		.filter(isPlainDate);
	if (!candidates.length) return null;
	const now = parseDate(today);
	const distance = (date: PlainDate) => Math.abs(parseDate(date).compare(now as CalendarDate));
	return candidates.sort((a, b) => distance(a) - distance(b))[0]!;
}

const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];

function comingWeekday(wanted: number, today: PlainDate): PlainDate {
	const now = parseDate(today);
	return now.add({ days: (wanted - getDayOfWeek(now, 'en-GB', 'mon') + 7) % 7 }).toString();
}

function closestYears(today: PlainDate): number[] {
	const year = Number(today.slice(0, 4));
	return [year, year - 1, year + 1];
}

function pad(value: number, length: number): string {
	return String(value).padStart(length, '0');
}
