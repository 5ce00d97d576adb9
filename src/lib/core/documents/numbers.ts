// Document numbers: the owner's own pattern, with the running number in it.

const PLACEHOLDER = /\{n+\}/g;
const PLACEHOLDER_WHOLE = /^\{n+\}$/;

/** What is wrong with a pattern, in plain words; null where it is right. */
export function explainNumberPattern(pattern: string): string | null {
	if (pattern.length > 30) return 'At most 30 characters.';
	if ((pattern.match(PLACEHOLDER) ?? []).length !== 1) {
		return 'Put {n} where the running number goes, once: INV-{nnnn} gives INV-0001.';
	}
	const rest = pattern.replace(PLACEHOLDER, '').replaceAll('{year}', '');
	return /^[A-Za-z0-9 ./_-]*$/.test(rest)
		? null
		: 'Only letters, digits, spaces and - / . _ besides {n} and {year}.';
}

/** `INV-{nnnn}` and 7 → `INV-0007`. */
export function formatNumber(pattern: string, running: number, year: string): string {
	return pattern
		.replaceAll('{year}', year)
		.replace(PLACEHOLDER, (match) => String(running).padStart(match.length - 2, '0'));
}

/** The running number in a number of this pattern; null where it is of another. `INV-{nnnn}` and `INV-0007` → 7. */
export function runningOf(pattern: string, number: string): number | null {
	const parts = pattern
		.split(/(\{n+\}|\{year\})/)
		.map((part) =>
			part === '{year}'
				? '\\d{4}'
				: PLACEHOLDER_WHOLE.test(part)
					? '(\\d+)'
					: part.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
		);
	const digits = new RegExp(`^${parts.join('')}$`, 'i').exec(number.trim())?.[1];
	return digits === undefined || digits.length > 15 ? null : Number(digits);
}
