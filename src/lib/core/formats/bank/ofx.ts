// OFX: the exchange format of banks, in its old form, where values close by themselves, in its new form in XML, and in all that lies between.
import { TableError } from '../table';
import { at, nodes, textOf } from '../xml';
import {
	joined,
	readDate,
	readWrittenAmount,
	saysTakenBack,
	type BankLine,
	type LeftOut,
	type Statements
} from './line';

type Node = Record<string, unknown>;

/** What the old form says above its first mark of how it is written. */
export function ofxEncoding(bytes: Uint8Array): string {
	const head = new TextDecoder('latin1').decode(bytes.subarray(0, 1000));
	if (!/OFXHEADER/i.test(head)) return '';
	const charset = /CHARSET:\s*([\w-]+)/i.exec(head)?.[1] ?? '';
	if (/ENCODING:\s*UTF-?8/i.test(head)) return 'utf-8';
	return /^125\d$/.test(charset)
		? `windows-${charset}`
		: /^(8859-1|iso-8859-1)$/i.test(charset)
			? 'iso-8859-1'
			: '';
}

/** @throws TableError */
export function readOfx(text: string): Statements {
	const root = tree(text);
	const accounts = [
		...nodes(at(root, 'OFX', 'BANKMSGSRSV1'), 'STMTTRNRS').flatMap((one) => nodes(one, 'STMTRS')),
		...nodes(at(root, 'OFX', 'CREDITCARDMSGSRSV1'), 'CCSTMTTRNRS').flatMap((one) =>
			nodes(one, 'CCSTMTRS')
		)
	];
	if (accounts.length === 0)
		throw new TableError('There is no statement of an account in this file.');
	const lines: BankLine[] = [];
	const leftOut: LeftOut[] = [];
	const ids = new Set<string>();
	const currencies = new Set<string>();
	let row = 0;
	for (const one of accounts) {
		const account = (
			textOf(at(one, 'BANKACCTFROM', 'ACCTID')) || textOf(at(one, 'CCACCTFROM', 'ACCTID'))
		).slice(0, 60);
		const kept = textOf(at(one, 'CURDEF')).toUpperCase();
		ids.add(account);
		if (kept) currencies.add(kept);
		for (const list of nodes(one, 'BANKTRANLIST'))
			for (const transaction of nodes(list, 'STMTTRN')) {
				const read = readTransaction(transaction, ++row, account, kept);
				if ('why' in read) leftOut.push(read);
				else lines.push(read);
			}
	}
	return {
		account: ids.size === 1 ? [...ids][0]! : '',
		currency: currencies.size === 1 ? [...currencies][0]! : '',
		lines,
		leftOut
	};
}

function readTransaction(
	one: Node,
	row: number,
	account: string,
	kept: string
): LeftOut | BankLine {
	const value = (...path: string[]) => textOf(at(one, ...path));
	const mark = value('FITID');
	const out = (why: string): LeftOut => ({
		row,
		why: mark ? `${why} (${mark.slice(0, 40)})` : why
	});
	const date = readDate(value('DTPOSTED').slice(0, 8), 'ymd') ?? readDate(value('DTPOSTED'), 'ymd');
	// A comma before the pence is what some banks write, against the standard.
	const amount = readWrittenAmount(value('TRNAMT'), value('TRNAMT').includes(',') ? ',' : '.');
	if (date === null) return out('It has no date that can be read.');
	if (amount === null) return out('It has no amount that can be read.');
	if (amount.amount === 0n) return out('It moves nothing (0.00).');
	const memo = value('MEMO');
	const name = value('NAME') || value('PAYEE', 'NAME');
	return {
		row,
		account,
		date,
		amount: amount.amount,
		currency: value('CURRENCY', 'CURSYM').toUpperCase() || amount.currency || kept,
		text: joined([memo, ...(memo ? [] : [name])]),
		payer: name.replace(/\s+/g, ' ').slice(0, 140),
		reference: (value('REFNUM') || value('CHECKNUM')).slice(0, 140),
		pending: false,
		reversal: saysTakenBack(`${memo} ${name}`)
	};
}

/** Values of a transaction and of an account: they hold words, and nothing else. */
const VALUES = new Set(
	'MEMO MEMO2 NAME EXTDNAME CHECKNUM REFNUM SIC PAYEEID FITID SRVRTID TRNTYPE DTPOSTED DTUSER DTAVAIL TRNAMT CURDEF BANKID BRANCHID ACCTID ACCTTYPE ACCTKEY CURSYM CURRATE DTSTART DTEND BALAMT DTASOF CODE SEVERITY MESSAGE LANGUAGE DTSERVER ORG FID TRNUID INTU.BID'.split(
		' '
	)
);

/** The tree of its marks: a value ends where the next mark begins, an end without a beginning is passed over. */
function tree(text: string): Node {
	const start = text.search(/<OFX>/i);
	if (start < 0) throw new TableError('There is no statement in this file.');
	const closed = new Set(
		Array.from(text.matchAll(/<\/([\w.]+)\s*>/g), ([, name]) => name!.toUpperCase())
	);
	const root: Node = {};
	const open: { name: string; node: Node }[] = [{ name: '', node: root }];
	const add = (name: string, value: unknown) => {
		const { node } = open.at(-1)!;
		const before = node[name];
		if (before === undefined) node[name] = value;
		else if (Array.isArray(before)) before.push(value);
		else node[name] = [before, value];
	};
	const marks = /<(\/?)([\w.]+)\s*(\/?)>([^<]*(?:<(?![/\w])[^<]*)*)/g;
	marks.lastIndex = start;
	for (const [, end, raw, self, words] of text.matchAll(marks)) {
		const name = raw!.toUpperCase();
		const value = words!.trim();
		if (end) {
			const depth = open.findLastIndex((one) => one.name === name);
			if (depth > 0) open.length = depth;
		} else if (value !== '' || self || VALUES.has(name) || !closed.has(name)) add(name, value);
		else {
			const node: Node = {};
			add(name, node);
			open.push({ name, node });
		}
	}
	return root;
}
