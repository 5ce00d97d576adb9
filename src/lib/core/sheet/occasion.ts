// A sheet that is used again and again: words in braces say when.
import { parseDate } from '@internationalized/date';
import { displayDate, monthName } from '../calendar/conversion';
import type { PlainDate } from '../calendar/types';
import type { Sheet } from './types';

type OccasionWord = 'month' | 'next month' | 'quarter' | 'year' | 'date';

/** What can stand in braces, and what it becomes on a day. */
export function wordsOn(date: PlainDate): Record<OccasionWord, string> {
	const day = parseDate(date);
	const next = day.set({ day: 1 }).add({ months: 1 });
	const quarter = Math.floor((day.month - 1) / 3) * 3;
	const month = (of: { month: number; year: number }) => `${monthName(of.month)} ${of.year}`;
	return {
		month: month(day),
		'next month': month(next),
		quarter: `${monthName(quarter + 1)} to ${monthName(quarter + 3)} ${day.year}`,
		year: String(day.year),
		date: displayDate(date)
	};
}

/** The text with its words in braces filled in; braces with anything else stay as they are. */
export function fillText(text: string, date: PlainDate): string {
	const words = wordsOn(date);
	return text.replace(/\{([a-z ]+)\}/gi, (whole, name: string) => {
		const key = name.trim().toLowerCase();
		return Object.hasOwn(words, key) ? words[key as OccasionWord] : whole;
	});
}

/** The sheet for one occasion: dated on it, and with its words filled in. */
export function sheetOn(sheet: Sheet, date: PlainDate): Sheet {
	const fill = (text: string) => fillText(text, date);
	return {
		...sheet,
		issueDate: date,
		workFinished: date,
		dueDate: '',
		reference: fill(sheet.reference),
		note: fill(sheet.note),
		rows: sheet.rows.map((row) =>
			row.type === 'line'
				? { ...row, description: fill(row.description) }
				: { ...row, text: fill(row.text) }
		)
	};
}
