// Cells of tables: a spreadsheet must not run what goes out, and what comes back is as it was.

/** A spreadsheet would run a cell that begins like a formula; some take the wide forms of East Asian writing for the same. */
export function safeCell(text: string): string {
	return /^[=+\-@\t\r\n＝＋－＠]/.test(text) && !/^-?[0-9.]+$/.test(text) ? `'${text}` : text;
}

/** A cell as it was before `safeCell` covered it. */
export const uncoverCell = (text: string): string => text.replace(/^'(?=[=+\-@＝＋－＠\t])/, '');
