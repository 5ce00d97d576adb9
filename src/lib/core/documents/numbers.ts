// Document numbers: the owner's own pattern, with the running number in it.

const PLACEHOLDER = /\{n+\}/g;

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
