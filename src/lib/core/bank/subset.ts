// Which of a payer's open invoices add up to what came in.
import { compare } from '../money/decimal';
import type { Minor } from '../money/types';

/** Steps the search may take: it ends in time whatever it is given. */
const MOST_STEPS = 20_000;

/**
 * Indices of amounts that add up to a sum exactly, fewest first where several would; null where none was found within
 * the steps. All of them, and the first ones in order, are tried before the search. Above zero.
 */
export function findSubset(amounts: readonly Minor[], sum: Minor): number[] | null {
	if (sum <= 0n) return null;
	let running = 0n;
	for (const [index, amount] of amounts.entries()) {
		running += amount;
		if (running === sum) return Array.from({ length: index + 1 }, (_, n) => n);
		if (running > sum) break;
	}
	const order = amounts
		.map((amount, index) => ({ amount, index }))
		.filter(({ amount }) => amount > 0n && amount <= sum)
		.sort((a, b) => compare(b.amount, a.amount));
	// What all from here on come to: below what is missing, there is nothing to find.
	const rest: Minor[] = new Array(order.length + 1).fill(0n);
	for (let index = order.length - 1; index >= 0; index--)
		rest[index] = rest[index + 1]! + order[index]!.amount;
	let steps = 0;
	const search = (from: number, missing: Minor, left: number): number[] | null => {
		if (missing === 0n) return [];
		if (left === 0) return null;
		for (let index = from; index < order.length; index++) {
			if (rest[index]! < missing || ++steps > MOST_STEPS) return null;
			const { amount, index: original } = order[index]!;
			if (amount > missing) continue;
			// The largest that is left cannot be reached with so few any more.
			if (amount * BigInt(left) < missing) return null;
			const found = search(index + 1, missing - amount, left - 1);
			if (found) return [original, ...found];
		}
		return null;
	};
	for (let size = 1; size <= Math.min(order.length, 12); size++) {
		const found = search(0, sum, size);
		if (found) return found.sort((a, b) => a - b);
		if (steps > MOST_STEPS) return null;
	}
	return null;
}
