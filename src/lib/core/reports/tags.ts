// What of an amount belongs to which income category or cost centre, by the lines of its document.
import { divideRounded } from '../money/decimal';
import type { Minor } from '../money/types';

/**
 * An amount spread over weights that may be below zero, on the running sum: all parts together are the amount, to the
 * penny. Where the weights come to nothing, the first has all of it.
 */
export function spread(amount: Minor, weights: readonly Minor[]): Minor[] {
	const whole = weights.reduce((sum, weight) => sum + weight, 0n);
	if (whole === 0n) return weights.map((_, index) => (index === 0 ? amount : 0n));
	const sign = whole < 0n ? -1n : 1n;
	let running = 0n;
	let given = 0n;
	return weights.map((weight) => {
		running += weight;
		const upTo = divideRounded(amount * running * sign, whole * sign);
		const part = upTo - given;
		given = upTo;
		return part;
	});
}

/** By what the lines say, an amount that came for all of them. Lines that say nothing stand under an empty name. */
export function spreadByTag(
	amount: Minor,
	lines: readonly { tag: string; net: Minor }[]
): Map<string, Minor> {
	const nets = new Map<string, Minor>();
	for (const { tag, net } of lines) nets.set(tag, (nets.get(tag) ?? 0n) + net);
	const parts = spread(amount, [...nets.values()]);
	return new Map([...nets.keys()].map((tag, index) => [tag, parts[index]!]));
}
