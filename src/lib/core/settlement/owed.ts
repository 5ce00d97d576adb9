// Who owes how much for how long: payers in the order in which a call is most worth it, and when money is likely to come.
import { addDays } from '../calendar/manipulation';
import { daysBetween } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import { compare } from '../money/decimal';
import type { Currency } from '../money/currencies';
import type { Minor } from '../money/types';
import { ageOf, AGES, type Age } from './statement';

export interface OwedItem {
	documentId: number;
	number: string;
	dueDate: PlainDate;
	/** What the payer still has to send, in pence: of other money, at its document's rate. */
	toPay: Minor;
	/** Of an invoice in other money: in that. */
	own?: { amount: Minor; currency: Currency };
	/** It is disputed, or promised by a day that has not passed. */
	hold: { kind: 'dispute' | 'promise'; until: PlainDate | null } | null;
}

/** How a payer has paid so far: days after the due day. */
export interface Habit {
	median: number;
	/** The middle half lies between these. */
	from: number;
	to: number;
	of: number;
}

export interface OwedPayer<Item extends OwedItem = OwedItem> {
	payerId: number;
	items: Item[];
	owed: Minor;
	late: Minor;
	/** Days the latest of them is late; 0 where none is. */
	daysLate: number;
	/** Pence times days late of what is not held: what a call is worth. */
	worth: bigint;
}

/** Beyond this many days, more lateness does not make a call more urgent. */
const MOST_DAYS = 120;

/** Whether a promise still keeps an invoice from being chased. */
export function isHeld(item: OwedItem, today: PlainDate): boolean {
	if (!item.hold) return false;
	return item.hold.kind === 'dispute' || (item.hold.until ?? '') >= today;
}

/** A payer's open invoices, summed up. */
export function summarise<Item extends OwedItem>(
	payerId: number,
	items: readonly Item[],
	today: PlainDate
): OwedPayer<Item> {
	let owed = 0n;
	let late = 0n;
	let daysLate = 0;
	let worth = 0n;
	for (const item of items) {
		owed += item.toPay;
		const days = daysBetween(item.dueDate, today);
		if (days <= 0) continue;
		late += item.toPay;
		daysLate = Math.max(daysLate, days);
		if (!isHeld(item, today)) worth += item.toPay * BigInt(Math.min(days, MOST_DAYS));
	}
	return { payerId, items: [...items], owed, late, daysLate, worth };
}

/** Most worth a call first; those nobody needs to call by what they owe. */
export function byWorth(a: OwedPayer, b: OwedPayer): number {
	return compare(b.worth, a.worth) || compare(b.owed, a.owed) || a.payerId - b.payerId;
}

export function sumsByAge(items: readonly OwedItem[], today: PlainDate): Record<Age, Minor> {
	const sums = Object.fromEntries(AGES.map((age) => [age, 0n])) as Record<Age, Minor>;
	for (const { dueDate, toPay } of items) sums[ageOf(daysBetween(dueDate, today))] += toPay;
	return sums;
}

/** The habit in days after due of what was settled; null where nothing was. Ranks are whole days really taken. */
export function habitOf(daysAfterDue: readonly number[]): Habit | null {
	if (daysAfterDue.length === 0) return null;
	const sorted = [...daysAfterDue].sort((a, b) => a - b);
	const at = (part: number) => sorted[Math.floor((sorted.length - 1) * part)]!;
	return { median: at(0.5), from: at(0.25), to: at(0.75), of: sorted.length };
}

/** The day an invoice is likely to be paid by habit; a day that has passed already says nothing. */
export function likelyDay(
	{ dueDate, hold }: OwedItem,
	habit: Habit | null,
	today: PlainDate
): PlainDate | null {
	if (hold?.kind === 'promise' && hold.until && hold.until >= today) return hold.until;
	if (hold?.kind === 'dispute' || !habit) return null;
	const day = addDays(dueDate, habit.median);
	return day >= today ? day : null;
}

/** Caps of the marks' scale whose quarter and sixteenth are round too. Pence. */
const ROUND = [160n, 400n, 800n];

/**
 * Up to which amount the marks of the money rule grow: the largest, unless it is so large beside the others that they would
 * all look alike; then eight times what three quarters of them stay below. Rounded up, so that the key has round amounts.
 */
export function markCap(amounts: readonly Minor[]): Minor {
	const sorted = [...amounts].sort(compare);
	const largest = sorted.at(-1) ?? 0n;
	const most = 8n * (sorted[Math.floor((sorted.length * 3) / 4)] ?? 0n);
	const wanted = largest < most ? largest : most;
	for (let tens = 1n; ; tens *= 10n)
		for (const one of ROUND) if (one * tens >= wanted) return one * tens;
}
