// Next moves: what needs doing, with amounts. Every room says its own; the desk puts them in order.
import type { PlainDate } from './calendar/types';
import { compare, max } from './money/decimal';
import type { Minor } from './money/types';

export interface Move {
	id: string;
	/** Null where it is not about money. */
	amount: Minor | null;
	/**
	 * Which money it brings in, by name: several moves about the same money say the same. Absent where it brings none in,
	 * or where that is counted already, as a line of the bank is at its invoice.
	 */
	brings?: string;
	late: boolean;
	title: string;
	detail: string;
	action: string;
	href: string;
}

/** So many of one sort are shown at most. */
export const MOST_MOVES = 100;

/** What a payer is late with is one sum, whatever is to be done about it. */
export const lateMoney = (payerId: number): string => `late:${payerId}`;

/** What an open invoice brings: counted with all its payer is late with, or by itself while it is in time. */
export const moneyOf = (
	{ payerId, documentId, dueDate }: { payerId: number; documentId: number; dueDate: PlainDate },
	today: PlainDate
): string => (dueDate < today ? lateMoney(payerId) : `invoice:${documentId}`);

/** What the moves bring in together, each sum once. */
export function worthOf(moves: readonly Move[]): Minor {
	const sums = new Map<string, Minor>();
	for (const { brings, amount } of moves)
		if (brings !== undefined && amount !== null)
			sums.set(brings, max(sums.get(brings) ?? 0n, amount));
	return [...sums.values()].reduce((sum, one) => sum + one, 0n);
}

/** Most money first; what is not about money comes last. */
export function mostMoneyFirst(moves: readonly Move[]): Move[] {
	return [...moves].sort((a, b) => compare(b.amount ?? -1n, a.amount ?? -1n));
}

/** How a message fared that did not arrive, or of which that is not known. */
export function notReached(state: 'failed' | 'unsure', what: string, to: string): string {
	return state === 'failed'
		? `${what} did not reach ${to}`
		: `It is not known whether ${what.charAt(0).toLowerCase()}${what.slice(1)} reached ${to}`;
}
