// OFX: the exchange format of banks, in its old form without closing tags and its new form in XML.
import { readAmount, readDate, type BankLine, saysTakenBack } from './bankLine';
import { TableError } from './table';
import { at, nodes, readXml, textOf } from './xml';

/** @throws TableError */
export function readOfx(bytes: Uint8Array): BankLine[] {
	const text = new TextDecoder('utf-8').decode(bytes);
	const start = text.search(/<OFX>/i);
	if (start < 0) throw new TableError('There is no statement in this file.');
	const root = readXml(new TextEncoder().encode(closed(text.slice(start))));
	const accounts = [
		...nodes(at(root, 'OFX', 'BANKMSGSRSV1'), 'STMTTRNRS').map((one) => at(one, 'STMTRS')),
		...nodes(at(root, 'OFX', 'CREDITCARDMSGSRSV1'), 'CCSTMTTRNRS').map((one) => at(one, 'CCSTMTRS'))
	];
	if (accounts.length === 0) throw new TableError('There is no statement in this file.');
	return accounts.flatMap((account) => {
		const id =
			textOf(at(account, 'BANKACCTFROM', 'ACCTID')) || textOf(at(account, 'CCACCTFROM', 'ACCTID'));
		return nodes(at(account, 'BANKTRANLIST'), 'STMTTRN').map((one): BankLine => {
			const date = readDate(textOf(at(one, 'DTPOSTED')).slice(0, 8), 'ymd');
			const amount = readAmount(textOf(at(one, 'TRNAMT')));
			if (date === null || amount === null)
				throw new TableError('A transaction of this file has no date or no amount.');
			const memo = textOf(at(one, 'MEMO'));
			const name = textOf(at(one, 'NAME')) || textOf(at(one, 'PAYEE', 'NAME'));
			return {
				account: id,
				date,
				amount,
				text: (memo || name).slice(0, 500),
				payer: memo ? name.slice(0, 140) : '',
				reversal: saysTakenBack(memo)
			};
		});
	});
}

/** The old form leaves closing tags of values out: they are put back. */
function closed(text: string): string {
	if (/<\/(TRNAMT|DTPOSTED)>/i.test(text)) return upper(text);
	return upper(text).replace(
		/<([A-Z0-9.]+)>([^<\r\n]+)/g,
		(_, name: string, value: string) =>
			`<${name}>${value.trim().replace(/&(?!\w+;|#)/g, '&amp;')}</${name}>`
	);
}

const upper = (text: string) =>
	text.replace(
		/<(\/?)([\w.]+)>/g,
		(_, slash: string, name: string) => `<${slash}${name.toUpperCase()}>`
	);
