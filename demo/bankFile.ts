// A bank statement file for the demo, with lines that match by reference, amount, amount less deduction, several at once,
// with a slip, and not at all.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { addDays } from '../src/lib/core/calendar/manipulation';
import { and, desc, eq, gte } from 'drizzle-orm';
import { daysBetween } from '../src/lib/core/calendar/queries';
import { displayAmount } from '../src/lib/core/money/display';
import { customers, payments, payouts } from '../src/lib/server/db/schema';
import { openOf } from '../src/lib/server/services/ledger/openInvoices';
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
	// Pounds for an invoice in euro: the bank’s own rate, and its number in the text.
	const marais = ids.get('marais');
	const [euro] = marais ? openOf(world.db, marais, 'EUR') : [];
	if (euro)
		rows.push([
			1,
			`ATELIER MARAIS LUNE ${euro.number}`,
			Math.round((euro.toPaySterling ?? 0) * 0.991)
		]);
	// Money the books know already: a payout of the card processor, and a payment recorded by hand.
	const payout = world.db.select().from(payouts).orderBy(desc(payouts.id)).get();
	if (payout) rows.push([6, `${payout.reference} FPI`, payout.amount]);
	const known = world.db
		.select({ payment: payments, payer: customers.name })
		.from(payments)
		.innerJoin(customers, eq(customers.id, payments.payerId))
		.where(and(eq(payments.way, 'bank'), gte(payments.date, addDays(today, -6))))
		.orderBy(desc(payments.id))
		.get();
	if (known)
		rows.push([
			daysBetween(known.payment.date, today),
			known.payer.toUpperCase(),
			known.payment.amount
		]);
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
