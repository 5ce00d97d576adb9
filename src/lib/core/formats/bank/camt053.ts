// camt.053: the bank-to-customer statement of ISO 20022.
import { isPlainDate } from '../../calendar/queries';
import { TableError } from '../table';
import { at, nodes, readXml, textOf } from '../xml';
import { joined, readWrittenAmount, type BankLine, type LeftOut, type Statements } from './line';

type Node = Record<string, unknown>;

/** @throws TableError */
export function readCamt053(text: string): Statements {
	const statements = nodes(at(readXml(text), 'Document', 'BkToCstmrStmt'), 'Stmt');
	if (statements.length === 0) throw new TableError('There is no statement in this file.');
	const lines: BankLine[] = [];
	const leftOut: LeftOut[] = [];
	const accounts = new Set<string>();
	const currencies = new Set<string>();
	let row = 0;
	for (const statement of statements) {
		const account = (
			textOf(at(statement, 'Acct', 'Id', 'IBAN')) ||
			textOf(at(statement, 'Acct', 'Id', 'Othr', 'Id'))
		).slice(0, 60);
		const currency = textOf(at(statement, 'Acct', 'Ccy')).toUpperCase();
		accounts.add(account);
		if (currency) currencies.add(currency);
		for (const entry of nodes(statement, 'Ntry')) {
			const read = readEntry(entry, ++row, account, currency);
			if ('why' in read) leftOut.push(read);
			else lines.push(...read.lines);
		}
	}
	return {
		account: accounts.size === 1 ? [...accounts][0]! : '',
		currency: currencies.size === 1 ? [...currencies][0]! : '',
		lines,
		leftOut
	};
}

const day = (node: Node, name: string): string => {
	const date = (textOf(at(node, name, 'Dt')) || textOf(at(node, name, 'DtTm'))).slice(0, 10);
	return isPlainDate(date) ? date : '';
};

/** Pence without a sign, with the currency that stands at it. */
function moneyOf(node: unknown): { amount: bigint; currency: string } | null {
	const read = readWrittenAmount(textOf(node), '.');
	const currency = node && typeof node === 'object' ? (node as Node)['@Ccy'] : undefined;
	return (
		read && {
			amount: read.amount,
			currency: typeof currency === 'string' ? currency.toUpperCase() : ''
		}
	);
}

const signOf = (node: Node): 1n | -1n | null => {
	const written = textOf(at(node, 'CdtDbtInd')).toUpperCase();
	return written === 'CRDT' ? 1n : written === 'DBIT' ? -1n : null;
};

/** Booked, not booked yet, or why it is neither: the standard has codes, and banks have words of their own. */
function stateOf(entry: Node): 'booked' | 'pending' | { why: string } {
	const code = (textOf(at(entry, 'Sts', 'Cd')) || textOf(at(entry, 'Sts'))).toUpperCase();
	const own = textOf(at(entry, 'Sts', 'Prtry'));
	if (code === 'BOOK' || (code === '' && own === '')) return 'booked';
	if (code === 'PDNG' || code === 'FUTR') return 'pending';
	if (code === 'INFO') return { why: 'The bank sends it for information only.' };
	if (/^book(ed)?$/i.test(own)) return 'booked';
	if (/pend|pdng|futr|expect|authori/i.test(own)) return 'pending';
	return {
		why: `Its state is “${(own || code).slice(0, 30)}”, and it is not known what that means: only what is booked counts.`
	};
}

/** What an entry, or one transaction of it, says about itself. */
function about(node: Node, sign: bigint): Pick<BankLine, 'text' | 'payer' | 'reference'> {
	const party = (name: string) =>
		textOf(at(node, 'RltdPties', name, 'Nm')) || textOf(at(node, 'RltdPties', name, 'Pty', 'Nm'));
	const [whose, behind] = sign > 0n ? ['Dbtr', 'UltmtDbtr'] : ['Cdtr', 'UltmtCdtr'];
	const payer = party(whose!) || party(behind!);
	const structured = nodes(at(node, 'RmtInf'), 'Strd');
	const references = [
		...structured.map((one) => textOf(at(one, 'CdtrRefInf', 'Ref'))),
		...structured.flatMap((one) => nodes(one, 'RfrdDocInf').map((two) => textOf(at(two, 'Nb')))),
		textOf(at(node, 'Refs', 'EndToEndId')).replace(/^NOTPROVIDED$/i, '')
	].filter(Boolean);
	return {
		text: joined([
			...nodes(at(node, 'RmtInf'), 'Ustrd').map(textOf),
			...references,
			...structured.flatMap((one) => nodes(one, 'AddtlRmtInf').map(textOf)),
			...(party(behind!) === payer ? [] : [party(behind!)]),
			textOf(at(node, 'AddtlTxInf'))
		]),
		payer: payer.slice(0, 140),
		reference: (references[0] ?? '').slice(0, 140)
	};
}

function readEntry(
	entry: Node,
	row: number,
	account: string,
	kept: string
): LeftOut | { lines: BankLine[] } {
	const mark = textOf(at(entry, 'NtryRef')) || textOf(at(entry, 'AcctSvcrRef'));
	const out = (why: string): LeftOut => ({
		row,
		why: mark ? `${why} (${mark.slice(0, 40)})` : why
	});
	const state = stateOf(entry);
	if (typeof state === 'object') return out(state.why);
	const date = day(entry, 'BookgDt') || day(entry, 'ValDt');
	const sum = moneyOf(at(entry, 'Amt'));
	const sign = signOf(entry);
	if (!date) return out('It has no date that can be read.');
	if (!sum) return out('It has no amount that can be read.');
	if (!sign) return out('It does not say whether money came in or went out.');
	if (sum.amount === 0n) return out('It moves nothing (0.00).');
	const currency = sum.currency || kept;
	const reversal = /^(true|1)$/.test(textOf(at(entry, 'RvslInd')));
	const common = { row, account, date, currency, reversal, pending: state === 'pending' };
	const details = nodes(entry, 'NtryDtls').flatMap((one) => nodes(one, 'TxDtls'));
	// A batch is told transaction by transaction where each says what it moved, in the money of the account, and they add up.
	const parts = details.map((one) => {
		const money = moneyOf(at(one, 'Amt')) ?? moneyOf(at(one, 'AmtDtls', 'TxAmt', 'Amt'));
		const way = signOf(one) ?? sign;
		return money && (money.currency || currency) === currency
			? { one, way, amount: way * money.amount }
			: null;
	});
	const total = parts.reduce((all, part) => all + (part?.amount ?? 0n), 0n);
	if (details.length > 1 && parts.every((part) => part !== null) && total === sign * sum.amount)
		return {
			lines: parts
				.filter((part) => part.amount !== 0n)
				.map(({ one, way, amount }) => ({ ...common, ...about(one, way), amount }))
		};
	const told = (details.length ? details : [entry]).map((one) => about(one, sign));
	const [first] = told;
	return {
		lines: [
			{
				...common,
				amount: sign * sum.amount,
				text: joined(told.map((one) => one.text)) || joined([textOf(at(entry, 'AddtlNtryInf'))]),
				payer: new Set(told.map((one) => one.payer)).size === 1 ? first!.payer : '',
				reference: first!.reference
			}
		]
	};
}
