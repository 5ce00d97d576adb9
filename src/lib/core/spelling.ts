// How far two words are apart: letters changed, left out, added, or swapped with their neighbour.

/**
 * The number of slips between two words, or `most + 1` as soon as it is certain that there are more
 * (optimal string alignment).
 */
export function slipsBetween(a: string, b: string, most: number): number {
	if (Math.abs(a.length - b.length) > most) return most + 1;
	let before: number[] = [];
	let last = Array.from({ length: b.length + 1 }, (_, column) => column);
	for (let row = 1; row <= a.length; row++) {
		const current = [row];
		let least = row;
		for (let column = 1; column <= b.length; column++) {
			const same = a[row - 1] === b[column - 1];
			let slips = Math.min(
				last[column]! + 1,
				current[column - 1]! + 1,
				last[column - 1]! + (same ? 0 : 1)
			);
			const swapped =
				row > 1 && column > 1 && a[row - 1] === b[column - 2] && a[row - 2] === b[column - 1];
			if (swapped) slips = Math.min(slips, before[column - 2]! + 1);
			current.push(slips);
			least = Math.min(least, slips);
		}
		if (least > most) return most + 1;
		[before, last] = [last, current];
	}
	return last[b.length]!;
}

/** How many slips a typed word of this length is forgiven. */
export function slipsAllowed(length: number): number {
	return length < 4 ? 0 : length < 8 ? 1 : 2;
}

/**
 * The words of a vocabulary that a mistyped beginning may have meant, nearest first.
 * What was typed is compared with as many letters of each word, because people stop typing early.
 */
export function likelyWords(typed: string, vocabulary: Iterable<string>, most = 6): string[] {
	const allowed = slipsAllowed(typed.length);
	if (allowed === 0) return [];
	const found: { word: string; slips: number }[] = [];
	for (const word of vocabulary) {
		if (word.length < typed.length - allowed) continue;
		let slips = allowed + 1;
		for (let end = typed.length - 1; end <= typed.length + 1; end++) {
			const part = end >= word.length ? word : word.slice(0, end);
			slips = Math.min(slips, slipsBetween(typed, part, allowed));
			if (end >= word.length) break;
		}
		if (slips <= allowed) found.push({ word, slips });
	}
	return found
		.sort((a, b) => a.slips - b.slips || a.word.length - b.word.length)
		.slice(0, most)
		.map(({ word }) => word);
}
