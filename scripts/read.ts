// What is understood of a file, from the shell, with nothing asked and nothing taken in: `npm run -s read -- bank FILE`, `-- contacts FILE`.
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { readBankFile } from '../src/lib/core/formats/bank/file';
import { readContacts } from '../src/lib/core/formats/contacts';
import { TableError } from '../src/lib/core/formats/table';
import { formatMoney } from '../src/lib/core/money/decimal';

const readers = {
	bank: (bytes: Uint8Array) => {
		const { format, account, currency, lines, leftOut } = readBankFile(bytes);
		return {
			format,
			account: account || null,
			currency,
			lines: lines.map(({ date, amount, text, payer, reference, pending }) => ({
				date,
				amount: formatMoney(amount),
				text,
				payer,
				reference,
				pending
			})),
			leftOut
		};
	},
	contacts: (bytes: Uint8Array) => {
		const { people, leftOut } = readContacts(bytes);
		return {
			people: people.map(({ name, organisation, emails, phones, address, note }) => ({
				name,
				organisation,
				emails,
				phones,
				address,
				note
			})),
			leftOut
		};
	}
};

/** What is understood of a file. @throws TableError where it is refused whole */
export const read = (kind: 'bank' | 'contacts', bytes: Uint8Array): object => readers[kind](bytes);

function refuse(error: string): never {
	process.stderr.write(`${JSON.stringify({ error })}\n`);
	process.exit(2);
}

function main([kind = '', path = '']: string[]): void {
	if (kind !== 'bank' && kind !== 'contacts') refuse('Say what it is: bank or contacts.');
	if (!path) refuse('Name the file.');
	let bytes: Uint8Array;
	try {
		bytes = readFileSync(path);
	} catch {
		refuse('There is no such file, or it cannot be opened.');
	}
	try {
		process.stdout.write(`${JSON.stringify(read(kind, bytes), null, '\t')}\n`);
	} catch (error) {
		if (!(error instanceof TableError)) throw error;
		refuse(error.message);
	}
}

if (process.argv[1] === fileURLToPath(import.meta.url)) main(process.argv.slice(2));
