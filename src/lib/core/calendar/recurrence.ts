// When something repeats. Every occurrence is counted from the start, so that the 31st stays the 31st.
import { GregorianCalendar, parseDate, type CalendarDate } from '@internationalized/date';
import { addDays } from './manipulation';
import { toWorkingDay } from './holidays';
import type { PlainDate } from './types';

export const REPEAT_UNITS = ['day', 'week', 'month', 'year'] as const;
export type RepeatUnit = (typeof REPEAT_UNITS)[number];
export const WEEKEND_RULES = ['asIs', 'nextWorkingDay', 'previousWorkingDay'] as const;
export type WeekendRule = (typeof WEEKEND_RULES)[number];

export type RepeatEnd = { never: true } | { after: number } | { on: PlainDate };

export interface RepeatRule {
	start: PlainDate;
	/** Whole and at least 1. */
	every: number;
	unit: RepeatUnit;
	end: RepeatEnd;
	weekend: WeekendRule;
}

export interface Occurrence {
	/** Counted from the start, which is 0. */
	index: number;
	/** The day by the rule: what names the occurrence for good. */
	nominal: PlainDate;
	/** The day it falls on, moved off weekends and bank holidays where the rule says so. */
	date: PlainDate;
}

/** No run of weekend and bank holidays is as long. */
const LONGEST_MOVE_DAYS = 14;
const LAST_YEAR = 9999;

/**
 * The occurrences whose day lies within `from` to `to`, both included, in order. `from` and `to` test the
 * moved day, the end tests the nominal one. Empty where `from` is after `to`.
 */
export function* occurrences(
	rule: RepeatRule,
	from: PlainDate,
	to: PlainDate
): Generator<Occurrence> {
	const start = parseDate(rule.start);
	const lastIndex = 'after' in rule.end ? rule.end.after - 1 : Infinity;
	const lastDay = 'on' in rule.end ? rule.end.on : '9999-12-31';
	const latest = to > '9999-12-01' ? '9999-12-31' : addDays(to, LONGEST_MOVE_DAYS);
	for (let index = firstIndex(rule, start, from); index <= lastIndex; index++) {
		const nominal = nominalDay(rule, start, index);
		if (nominal === null || nominal > lastDay || nominal > latest) return;
		const date = moved(nominal, rule.weekend);
		if (date !== null && date >= from && date <= to) yield { index, nominal, date };
	}
}

/** The next occurrences on or after a day, at most `count` of them. */
export function nextOccurrences(rule: RepeatRule, from: PlainDate, count: number): Occurrence[] {
	const found: Occurrence[] = [];
	for (const one of occurrences(rule, from, '9999-12-31')) {
		if (found.push(one) === count) break;
	}
	return found;
}

function moved(nominal: PlainDate, weekend: WeekendRule): PlainDate | null {
	if (weekend === 'asIs') return nominal;
	return toWorkingDay(nominal, weekend === 'nextWorkingDay' ? 1 : -1);
}

/** An index no later than the first whose moved day can be `from` or after. */
function firstIndex({ every, unit }: RepeatRule, start: CalendarDate, from: PlainDate): number {
	const wanted = parseDate(from);
	const days = wanted.compare(start) - LONGEST_MOVE_DAYS;
	if (days <= 0) return 0;
	const months = (wanted.year - start.year) * 12 + (wanted.month - start.month) - 2;
	const units = {
		day: days,
		week: Math.floor(days / 7),
		month: months,
		year: Math.floor(months / 12)
	}[unit];
	return Math.max(0, Math.floor(units / every));
}

/** The day of an occurrence, or null after the year 9999. */
function nominalDay(
	{ every, unit }: RepeatRule,
	start: CalendarDate,
	index: number
): PlainDate | null {
	const count = every * index;
	if (unit === 'month' || unit === 'year') {
		const months = unit === 'year' ? count * 12 : count;
		if (start.year * 12 + start.month - 1 + months >= (LAST_YEAR + 1) * 12) return null;
		return start.add({ months }).toString();
	}
	const days = unit === 'week' ? count * 7 : count;
	const day = julianDay(start) + days;
	return day > LAST_DAY ? null : calendar.fromJulianDay(day).toString();
}

const calendar = new GregorianCalendar();
const julianDay = (date: CalendarDate): number => calendar.toJulianDay(date);
const LAST_DAY = julianDay(parseDate('9999-12-31'));
