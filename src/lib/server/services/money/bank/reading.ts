// Reading a statement. What was read last is known again.
import { createHash } from 'node:crypto';
import { readBankFile, type BankFile } from '../../../../core/formats/bank/file';
import type { CsvLayout } from '../../../../core/formats/bank/headings';
import { TableError } from '../../../../core/formats/table';
import { FieldError } from '../../../../core/refusals';

/** More lines than a tradesperson’s account has in ten years. */
const MOST_LINES = 20_000;
const KEPT = 4;

const lately = new Map<string, BankFile>();

function keep(name: string, file: BankFile): BankFile {
	lately.delete(name);
	lately.set(name, file);
	for (const oldest of lately.keys()) {
		if (lately.size <= KEPT) break;
		lately.delete(oldest);
	}
	return file;
}

const notTooLong = (file: BankFile): BankFile => {
	if (file.lines.length > MOST_LINES)
		throw new TableError(
			`This file has ${file.lines.length.toLocaleString('en-GB')} lines: at most 20,000 are brought in at once. Ask the bank for fewer months.`
		);
	return file;
};

/** What a file says. @throws TableError */
export function read(bytes: Uint8Array, layout: CsvLayout | null = null): BankFile {
	const name = createHash('sha256').update(bytes).update(JSON.stringify(layout)).digest('hex');
	return lately.get(name) ?? keep(name, notTooLong(readBankFile(bytes, layout)));
}

/** What cannot be read is said at the file. */
export function inItsBox<T>(work: () => T): T {
	try {
		return work();
	} catch (error) {
		if (error instanceof TableError) throw new FieldError({ file: error.message });
		throw error;
	}
}
