// Which of a payer's open invoices add up to what came in.

/** Steps the search may take: it ends in time whatever it is given. */
const MOST_STEPS = 20_000;

/**
 * Indices of amounts that add up to a sum exactly, fewest first where several would; null where none was found within
 * the steps. All of them, and the first ones in order, are tried before the search. Pence, above zero.
 */
export function findSubset(amounts: readonly number[], sum: number): number[] | null {
	if (sum <= 0) return null;
	let running = 0;
	for (const [index, amount] of amounts.entries()) {
		running += amount;
		if (running === sum) return Array.from({ length: index + 1 }, (_, n) => n);
		if (running > sum) break;
	}
	const order = amounts
		.map((amount, index) => ({ amount, index }))
		.filter(({ amount }) => amount > 0 && amount <= sum)
		.sort((a, b) => b.amount - a.amount);
	// What all from here on come to: below what is missing, there is nothing to find.
	const rest: number[] = new Array(order.length + 1).fill(0);
	for (let index = order.length - 1; index >= 0; index--)
		rest[index] = rest[index + 1]! + order[index]!.amount;
	let steps = 0;
	const search = (from: number, missing: number, left: number): number[] | null => {
		if (missing === 0) return [];
		if (left === 0) return null;
		for (let index = from; index < order.length; index++) {
			if (rest[index]! < missing || ++steps > MOST_STEPS) return null;
			const { amount, index: original } = order[index]!;
			if (amount > missing) continue;
			// The largest that is left cannot be reached with so few any more.
			if (amount * left < missing) return null;
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
