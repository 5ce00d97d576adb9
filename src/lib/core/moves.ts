// Next moves: what needs doing, with amounts. Every room says its own; the desk puts them in order.
import { compare } from './money/decimal';
import type { Minor } from './money/types';

export interface Move {
	id: string;
	/** Null where it is not about money. */
	amount: Minor | null;
	late: boolean;
	title: string;
	detail: string;
	action: string;
	href: string;
}

/** So many of one sort are shown at most. */
export const MOST_MOVES = 100;

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
