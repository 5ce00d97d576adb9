// camt.053: the bank-to-customer statement of ISO 20022. Booked entries only.
import { isPlainDate } from '../calendar/queries';
import { readAmount, type BankLine } from './bankLine';
import { TableError } from './table';
import { at, nodes, readXml, textOf } from './xml';

/** @throws TableError */
export function readCamt053(bytes: Uint8Array): BankLine[] {
	const statements = nodes(at(readXml(bytes), 'Document', 'BkToCstmrStmt'), 'Stmt');
	if (statements.length === 0) throw new TableError('There is no statement in this file.');
	return statements.flatMap((statement) => {
		const account =
			textOf(at(statement, 'Acct', 'Id', 'IBAN')) ||
			textOf(at(statement, 'Acct', 'Id', 'Othr', 'Id'));
		return nodes(statement, 'Ntry').flatMap((entry) => linesOf(entry, account));
	});
}

function linesOf(entry: Record<string, unknown>, account: string): BankLine[] {
	const status = textOf(at(entry, 'Sts', 'Cd')) || textOf(at(entry, 'Sts'));
	if (status !== '' && status !== 'BOOK') return [];
	const date = (
		textOf(at(entry, 'BookgDt', 'Dt')) ||
		textOf(at(entry, 'BookgDt', 'DtTm')) ||
		textOf(at(entry, 'ValDt', 'Dt'))
	).slice(0, 10);
	const sum = readAmount(textOf(at(entry, 'Amt')));
	if (!isPlainDate(date) || sum === null)
		throw new TableError('An entry of this file has no date or no amount.');
	const sign = textOf(at(entry, 'CdtDbtInd')) === 'DBIT' ? -1n : 1n;
	const reversal = textOf(at(entry, 'RvslInd')) === 'true';
	const details = nodes(entry, 'NtryDtls').flatMap((one) => nodes(one, 'TxDtls'));
	const common = { account, date, reversal };
	const about = (node: unknown) => ({
		text: [
			...nodes(at(node, 'RmtInf'), 'Ustrd').map(textOf),
			textOf(at(node, 'RmtInf', 'Strd', 'CdtrRefInf', 'Ref')),
			textOf(at(node, 'Refs', 'EndToEndId')).replace(/^NOTPROVIDED$/i, '')
		]
			.filter(Boolean)
			.join(' ')
			.slice(0, 500),
		payer: (
			textOf(at(node, 'RltdPties', sign > 0n ? 'Dbtr' : 'Cdtr', 'Nm')) ||
			textOf(at(node, 'RltdPties', sign > 0n ? 'Dbtr' : 'Cdtr', 'Pty', 'Nm'))
		).slice(0, 140)
	});
	// A batch is told transaction by transaction where each has an amount of its own and they add up.
	const amounts = details.map((one) =>
		readAmount(textOf(at(one, 'Amt')) || textOf(at(one, 'AmtDtls', 'TxAmt', 'Amt')) || 'none')
	);
	const adds =
		amounts.every((one) => one !== null) && amounts.reduce((a, b) => a! + b!, 0n) === sum;
	if (details.length > 1 && adds)
		return details.map((one, index) => ({
			...common,
			...about(one),
			amount: sign * amounts[index]!
		}));
	const told = about(details[0] ?? entry);
	const more = textOf(at(entry, 'AddtlNtryInf'));
	return [{ ...common, ...told, text: told.text || more, amount: sign * sum }];
}
