// An invoice that was paid twice: the same amount in two payments, of which all of the second is too much.
import type { Minor } from '../money/types';

/**
 * @param payments in order of date
 * @param inHand what was paid beyond the invoice
 * @returns both payments; null where nothing was paid twice
 */
export function paidTwice<T extends { amount: Minor }>(
	payments: readonly T[],
	inHand: Minor
): [T, T] | null {
	if (inHand <= 0n) return null;
	for (const [index, second] of payments.entries()) {
		if (second.amount !== inHand) continue;
		const first = payments.slice(0, index).find(({ amount }) => amount === second.amount);
		if (first) return [first, second];
	}
	return null;
}
