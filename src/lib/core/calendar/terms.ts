// Payment terms: from an issue date to a due date, and back to words.
import { parseDate } from '@internationalized/date';
import { addDays } from './manipulation';
import type { PlainDate } from './types';

/** `days` after the issue date, or at the end of the month those days fall in. */
export interface Terms {
	days: number;
	endOfMonth: boolean;
}

export function dueDate(issued: PlainDate, terms: Terms): PlainDate {
	const date = addDays(issued, terms.days);
	if (!terms.endOfMonth) return date;
	const parsed = parseDate(date);
	return parsed.set({ day: parsed.calendar.getDaysInMonth(parsed) }).toString();
}

export function describeTerms({ days, endOfMonth }: Terms): string {
	if (endOfMonth) return days === 0 ? 'end of month' : `${days} days, end of month`;
	return days === 0 ? 'on receipt' : `${days} days`;
}
