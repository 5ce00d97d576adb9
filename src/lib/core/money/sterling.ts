// What a part of an amount in other money stands at in the books.
import { divideRounded } from './decimal';

/**
 * Of a document that comes to `total` in its own money and `sterling` in pence: what `part` of it stands at. Worked out on
 * what is left each time, so that all parts together are the sterling, to the penny.
 */
export function shareOfSterling(part: number, total: number, sterling: number): number {
	if (total === 0) return 0;
	const value = BigInt(part) * BigInt(sterling);
	return Number(
		total < 0 ? divideRounded(-value, BigInt(-total)) : divideRounded(value, BigInt(total))
	);
}
