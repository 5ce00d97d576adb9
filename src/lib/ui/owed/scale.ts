import { daysBetween } from '$lib/core/calendar/queries';
import { compare } from '$lib/core/money/decimal';
import type { Minor } from '$lib/core/money/types';
import { isHeld, type Habit, type OwedItem } from '$lib/core/settlement/owed';

/** The scale of the money rule on the page of what is owed: days before and after due. What lies beyond has a gutter. */
export const FROM = -45;
export const TO = 90;
/** The gutters' widths, in percent. */
export const GUTTER = { before: 5, after: 11 };

/** Where a day lies on the rule, in percent; what lies beyond stands in the middle of its gutter. */
export function place(day: number): number {
	if (day < FROM) return GUTTER.before / 2;
	if (day > TO) return 100 - GUTTER.after / 2;
	return GUTTER.before + ((100 - GUTTER.before - GUTTER.after) * (day - FROM)) / (TO - FROM);
}

/** How high a mark of so much stands, as a share of the highest. By its root, so that small ones can be told apart. */
export function heightOf(amount: Minor, cap: Minor): number {
	return Math.min(1, Math.sqrt(Number(amount) / Number(cap)));
}

export interface Column {
	/** In percent of the rule. */
	at: number;
	late: boolean;
	sum: Minor;
	items: (OwedItem & { days: number; held: boolean })[];
}

/** What falls on one day, or in one gutter, stands on each other, the largest at the bottom. */
export function columnsOf(items: readonly OwedItem[], today: string): Column[] {
	const columns = new Map<number, Column>();
	for (const item of items) {
		const days = daysBetween(item.dueDate, today);
		const at = place(days);
		const column = columns.get(at) ?? { at, late: days > 0, sum: 0n, items: [] };
		column.sum += item.toPay;
		column.items.push({ ...item, days, held: isHeld(item, today) });
		columns.set(at, column);
	}
	for (const column of columns.values())
		column.items.sort((a, b) => compare(b.toPay, a.toPay) || a.documentId - b.documentId);
	return [...columns.values()].sort((a, b) => a.at - b.at);
}

export function daysInWords(days: number): string {
	if (days === 0) return 'due today';
	const count = Math.abs(days);
	return `${count} ${count === 1 ? 'day' : 'days'} ${days > 0 ? 'late' : 'left'}`;
}

function sideOfDue(days: number): string {
	if (days === 0) return 'on the due day';
	const count = Math.abs(days);
	return `${count} ${count === 1 ? 'day' : 'days'} ${days > 0 ? 'late' : 'early'}`;
}

/** `usually pays 9 days late, mostly between 4 and 12 days late`. */
export function habitInWords(habit: Habit | null): string {
	if (!habit) return 'has not settled an invoice yet';
	const usual = `usually pays ${sideOfDue(habit.median)}`;
	if (habit.of < 4 || habit.from === habit.to) return usual;
	return `${usual}, mostly between ${sideOfDue(habit.from)} and ${sideOfDue(habit.to)}`;
}
