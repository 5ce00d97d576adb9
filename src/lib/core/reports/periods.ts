// The periods a report can be of: tax years, their quarters, cumulative or by themselves, months, or any days.
import { addDays, addMonths } from '../calendar/manipulation';
import { displayDate } from '../calendar/conversion';
import type { PlainDate } from '../calendar/types';
import type { Period } from './income';

/** The tax year a day lies in begins on 6 April (ITA 2007 s.4). */
export const taxYearOf = (day: PlainDate): Period => {
	const year = Number(day.slice(0, 4)) - (day.slice(5) < '04-06' ? 1 : 0);
	return { from: `${year}-04-06`, to: `${year + 1}-04-05` };
};

export interface NamedPeriod extends Period {
	key: string;
	label: string;
}

/**
 * Those that are asked for most, the nearest first: quarters run from the beginning of the tax year to 5 July, 5 October, 5 January
 * and 5 April (The Income Tax (Digital Obligations) Regulations 2026, cumulative), or of the calendar.
 */
export function periodsOf(today: PlainDate): NamedPeriod[] {
	const year = taxYearOf(today);
	const before = taxYearOf(addDays(year.from, -1));
	const named = (key: string, label: string, { from, to }: Period): NamedPeriod => ({
		key,
		label,
		from,
		to
	});
	const ends = [3, 6, 9, 12].map((months) => addDays(addMonths(year.from, months), -1));
	const quarter = ends.find((end) => today <= end)!;
	const month = `${today.slice(0, 7)}-01`;
	const calendar = Math.floor((Number(today.slice(5, 7)) - 1) / 3);
	const begin = `${today.slice(0, 4)}-${String(calendar * 3 + 1).padStart(2, '0')}-01`;
	return [
		named('year', `This tax year, ${spoken(year)}`, year),
		named('quarter', `Tax year to ${displayDate(quarter)}`, { from: year.from, to: quarter }),
		named('calendar', 'This calendar quarter', {
			from: begin,
			to: addDays(addMonths(begin, 3), -1)
		}),
		named('lastCalendar', 'The calendar quarter before', {
			from: addMonths(begin, -3),
			to: addDays(begin, -1)
		}),
		named('month', 'This month', { from: month, to: addDays(addMonths(month, 1), -1) }),
		named('lastMonth', 'The month before', {
			from: addMonths(month, -1),
			to: addDays(month, -1)
		}),
		named('lastYear', `The tax year before, ${spoken(before)}`, before)
	];
}

const spoken = ({ from }: Period): string =>
	`${from.slice(0, 4)}/${String(Number(from.slice(2, 4)) + 1).padStart(2, '0')}`;

/** When VAT periods end (VAT Regulations 1995 reg. 25): three months each, by the months they end in, or each month. */
export const STAGGERS = ['', 'march', 'april', 'may', 'monthly'] as const;
export type Stagger = (typeof STAGGERS)[number];

/** Of each stagger the months its periods end in, from 0 to 2 within a quarter of the calendar. */
const ENDS: Readonly<Record<Exclude<Stagger, '' | 'monthly'>, number>> = {
	march: 2,
	april: 0,
	may: 1
};
const VAT_PERIODS = ['This VAT period', 'The one before', 'The one before that', 'A year ago'];

/** The VAT period of today, the two before it, and that of a year ago; where no stagger is known, calendar quarters. */
export function vatPeriodsOf(today: PlainDate, stagger: Stagger): NamedPeriod[] {
	const length = stagger === 'monthly' ? 1 : 3;
	const month = Number(today.slice(5, 7)) - 1;
	const end = stagger === 'monthly' ? month : ENDS[stagger === '' ? 'march' : stagger];
	const left = stagger === 'monthly' ? 0 : (end - (month % 3) + 3) % 3;
	const begin = addMonths(`${today.slice(0, 7)}-01`, left - length + 1);
	return [0, 1, 2, 12 / length].map((back, index) => {
		const from = addMonths(begin, -back * length);
		const to = addDays(addMonths(from, length), -1);
		return {
			key: `vat${index}`,
			label: `${VAT_PERIODS[index]}, to ${displayDate(to)}`,
			from,
			to
		};
	});
}
