// Sharing an amount out so that the parts add up to it, to the penny.
import type { Minor } from './types';

/**
 * Shares `amount` (minor units, not negative) over `weights` (none negative) by largest remainder:
 * each gets the floor of its part; what is left over goes one unit each to the largest fractions,
 * earlier first on a tie.
 * @throws RangeError where there is something to share and no weight to share it by.
 */
export function shareOut(amount: Minor, weights: readonly bigint[]): Minor[] {
	let whole = 0n;
	for (const weight of weights) whole += weight;
	if (amount === 0n) return weights.map(() => 0n);
	if (whole === 0n) throw new RangeError('nothing to share the amount over');

	const parts: bigint[] = [];
	const fractions: bigint[] = [];
	let left = amount;
	for (const weight of weights) {
		const product = amount * weight;
		const part = product / whole;
		parts.push(part);
		fractions.push(product % whole);
		left -= part;
	}
	if (left > 0n) {
		const order = fractions
			.map((fraction, index) => ({ fraction, index }))
			.sort((a, b) =>
				a.fraction === b.fraction ? a.index - b.index : a.fraction < b.fraction ? 1 : -1
			);
		for (const { index } of order.slice(0, Number(left))) parts[index]! += 1n;
	}
	return parts;
}
