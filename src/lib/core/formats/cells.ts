// Cells of tables that go out: a spreadsheet must not run them.

/** A spreadsheet would run a cell that begins like a formula. */
export function safeCell(text: string): string {
	return /^[=+\-@\t\r]/.test(text) && !/^-?[0-9.]+$/.test(text) ? `'${text}` : text;
}
