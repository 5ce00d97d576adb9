// A bank statement file for the demo, with lines that match by reference, amount, amount less deduction, several at once,
// with a slip, and not at all.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { addDays } from '../src/lib/core/calendar/manipulation';
import { displayAmount } from '../src/lib/core/money/display';
import { openOf } from '../src/lib/server/services/openInvoices';
import type { Setting } from './work';

export function writeBankFile({ world, ids, today }: Setting, folder: string): void {
	const open = (key: string) => {
		const id = ids.get(key);
		return id ? openOf(world.db, id).filter((item) => item.toPay > 0) : [];
	};
	const rows: [ago: number, text: string, amount: number][] = [
		[6, 'DIRECT DEBIT WESTMARCH WATER', -4210],
		[5, 'CARD PAYMENT LIME WORKS', -31_680],
		[4, 'CASHBACK REWARD', 420],
		[2, 'REPAYMENT VAN INSURANCE REF 88213', 6150]
	];
	const [corvane] = open('corvane');
	if (corvane) rows.push([5, `CORVANE DAIRY ${corvane.number}`, corvane.toPay]);
	const [beacon] = open('beacon');
	if (beacon) rows.push([4, 'BEACON AND LATHE CONSTR BGC', beacon.toPay]);
	const staithe = open('staithe').slice(1, 3);
	if (staithe.length === 2)
		rows.push([3, 'STAITHE LETTINGS LTD', staithe[0]!.toPay + staithe[1]!.toPay]);
	const [church] = open('church');
	// A figure typed twice.
	if (church) rows.push([2, `PCC ${church.number.replace(/(\d)$/, '$1$1')}`, church.toPay]);
	const [isolde] = open('isolde');
	if (isolde) rows.push([1, 'FASTER PAYMENT RECEIVED', isolde.toPay]);
	const lines = rows
		.sort((a, b) => b[0] - a[0])
		.map(([ago, text, pence]) => {
			const date = addDays(today, -ago).split('-').reverse().join('/');
			const amount = displayAmount(BigInt(Math.abs(pence))).replaceAll(',', '');
			return `${date},${text},${pence < 0 ? amount : ''},${pence > 0 ? amount : ''}`;
		});
	writeFileSync(
		join(folder, 'bank-statement.csv'),
		`Date,Description,Paid out,Paid in\n${lines.join('\n')}\n`
	);
}
