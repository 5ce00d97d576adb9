// A customer's account as a running list: what raised the balance, what lowered it, and what it was after each.
import type { PlainDate } from '../calendar/types';
import type { Minor } from '../money/types';

export interface AccountItem {
	id: string;
	date: PlainDate;
	/** Pence; above zero raises the balance. */
	amount: Minor;
	what: string;
	documentId: number | null;
}

export interface AccountRow extends AccountItem {
	balance: Minor;
}

/** In order of date, then as given. */
export function runningAccount(items: readonly AccountItem[]): AccountRow[] {
	const ordered = items
		.map((item, index) => ({ item, index }))
		.sort((a, b) =>
			a.item.date === b.item.date ? a.index - b.index : a.item.date < b.item.date ? -1 : 1
		);
	let balance = 0n;
	return ordered.map(({ item }) => ({ ...item, balance: (balance += item.amount) }));
}

/**
 * Days a customer takes from issue to full settlement, as the median of what is settled; null where nothing is.
 * The middle of an even number is its lower one: a whole number of days that was really taken.
 */
export function usualDays(days: readonly number[]): number | null {
	if (days.length === 0) return null;
	const sorted = [...days].sort((a, b) => a - b);
	return sorted[Math.floor((sorted.length - 1) / 2)]!;
}
