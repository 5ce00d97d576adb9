// How much stood open at past days, by age: out of what changed each debt, and when.
import { parseDate } from '@internationalized/date';
import { daysBetween } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import type { Minor } from '../money/types';
import { ageOf, AGES, type Age } from './statement';

/** What one event changed on what one invoice owes. */
export interface DebtChange {
	documentId: number;
	dueDate: PlainDate;
	date: PlainDate;
	/** Above zero: more is owed. */
	amount: Minor;
}

export interface OpenThen {
	documentId: number;
	age: Age;
	open: Minor;
}

/** What stood open at the end of a day, invoice by invoice. What was overpaid counts for nothing. */
export function openOn(changes: readonly DebtChange[], day: PlainDate): OpenThen[] {
	const debts = new Map<number, { dueDate: PlainDate; open: Minor }>();
	for (const { documentId, dueDate, date, amount } of changes) {
		if (date > day) continue;
		const debt = debts.get(documentId);
		if (debt) debt.open += amount;
		else debts.set(documentId, { dueDate, open: amount });
	}
	return [...debts].flatMap(([documentId, { dueDate, open }]) =>
		open > 0n ? [{ documentId, age: ageOf(daysBetween(dueDate, day)), open }] : []
	);
}

/** The sums by age at the end of each day. */
export function owedOverTime(
	changes: readonly DebtChange[],
	days: readonly PlainDate[]
): Record<Age, Minor>[] {
	return days.map((day) => {
		const sums = Object.fromEntries(AGES.map((age) => [age, 0n])) as Record<Age, Minor>;
		for (const { age, open } of openOn(changes, day)) sums[age] += open;
		return sums;
	});
}

/** The last days of the twelve months up to a day; the last one is the day itself. */
export function monthEnds(today: PlainDate, months = 12): PlainDate[] {
	const first = parseDate(`${today.slice(0, 7)}-01`);
	const ends = Array.from({ length: months - 1 }, (_, n) =>
		first
			.subtract({ months: months - 2 - n })
			.subtract({ days: 1 })
			.toString()
	);
	return [...ends, today];
}
