// What the core matches bank lines with, and the proposals it found.
import { and, asc, eq, gt, inArray, isNull, sql } from 'drizzle-orm';
import { BOOKS } from '../../../../core/money/currencies';
import type { Known } from '../../../../core/bank/proposer';
import type { SettledInvoice } from '../../../../core/bank/twice';
import { WAY_NAMES, withinSentence } from '../../../../core/words';
import { type RecordedMoney } from '../../../../core/bank/recorded';
import type { OpenInvoice, Proposal, ToMatch } from '../../../../core/bank/types';
import { writeAtOnce, type Database, type Reader } from '../../../db/connection';
import {
	bankLines,
	customers,
	documents,
	openItems,
	payerNames,
	payouts,
	type KeptProposal
} from '../../../db/schema';
import { stillToPay } from '../../ledger/position';

/** What the matcher works with: every open invoice, and the names payers paid under. */
export function matchInput(db: Reader): Known {
	const invoices = db
		.select({
			item: openItems,
			number: documents.number,
			payer: customers.name,
			order: sql<string>`json_extract(${documents.sheet}, '$.orderNumber')`,
			reference: sql<string>`json_extract(${documents.sheet}, '$.reference')`
		})
		.from(openItems)
		.innerJoin(documents, eq(documents.id, openItems.documentId))
		.innerJoin(customers, eq(customers.id, openItems.payerId))
		.where(inArray(openItems.state, ['open', 'partPaid']))
		.all()
		.map(({ item, number, payer, order, reference }): OpenInvoice => ({
			documentId: item.documentId,
			payerId: item.payerId,
			payer,
			number: number!,
			references: [order, reference].filter(Boolean),
			dueDate: item.dueDate,
			toPay: BigInt(stillToPay(item)),
			outstanding: BigInt(item.outstanding),
			...(item.currency === BOOKS
				? {}
				: { currency: item.currency, toPaySterling: BigInt(item.toPaySterling ?? 0) })
		}));
	const learned = db
		.select()
		.from(payerNames)
		.all()
		.map((row): [string, number] => [row.name, row.payerId]);
	return { invoices, learned, recorded: recordedMoney(db), settled: settledLately(db) };
}

/** So many of the newest settled invoices are looked at for what was paid twice. */
const NEWEST = 2_000;

/** What was paid in full lately, and how. */
function settledLately(db: Reader): SettledInvoice[] {
	return db
		.all<Omit<SettledInvoice, 'payable' | 'how'> & { payable: number; ways: string | null }>(
			sql`
		select d.number, o.payer_id as payerId, c.name as payer, o.total - coalesce(o.deduction, 0) as payable,
			o.settled_on as paidOn, (select group_concat(distinct p.way) from allocations a
				join payments p on p.id = a.payment_id where a.document_id = o.document_id
				and not exists (select 1 from payment_reversals v where v.payment_id = p.id)) as ways
		from (select * from open_items where state = 'paid' and currency = 'GBP' order by document_id desc limit ${NEWEST}) o
		join documents d on d.id = o.document_id join customers c on c.id = o.payer_id where o.settled_on is not null`
		)
		.map(({ ways, payable, ...one }) => ({
			...one,
			payable: BigInt(payable),
			how:
				ways && ways in WAY_NAMES
					? `by ${withinSentence(WAY_NAMES[ways as keyof typeof WAY_NAMES])}`
					: ''
		}));
}

/** What reached the bank by the books and was not seen in a line yet: payments by bank, and payouts. */
export function recordedMoney(db: Reader): RecordedMoney[] {
	const paid = db.all<
		Omit<RecordedMoney, 'marks' | 'kind' | 'amount'> & { amount: number; marks: string }
	>(sql`
		select p.id, p.payer_id as payerId, c.name as payer, p.date, p.amount_sterling as amount,
			p.reference || '\n' || coalesce((select group_concat(d.number, '\n') from allocations a
				join documents d on d.id = a.document_id where a.payment_id = p.id), '') as marks
		from payments p join customers c on c.id = p.payer_id
		where p.way = 'bank' and not exists (select 1 from bank_lines l where l.payment_id = p.id)
			and not exists (select 1 from payment_reversals v where v.payment_id = p.id)`);
	const sent = db
		.select()
		.from(payouts)
		.where(isNull(payouts.seenOn))
		.all()
		.map(({ id, date, amount, reference }): RecordedMoney => ({
			kind: 'payout',
			id,
			payerId: 0,
			payer: 'The card processor',
			date,
			amount: BigInt(amount),
			marks: [reference]
		}));
	return [
		...paid.map((row): RecordedMoney => ({
			...row,
			kind: 'payment',
			amount: BigInt(row.amount),
			marks: row.marks.split('\n').filter(Boolean)
		})),
		...sent
	];
}

/** Payments an outgoing line may take back: the bank says so, or the text does. */
export function takenBack(db: Reader, line: typeof bankLines.$inferSelect) {
	if (line.amount >= 0) return [];
	const words = line.reversal || /revers|return|unpaid|recall|bounc/i.test(line.text);
	if (!words) return [];
	return db.all<{ id: number; payer: string; date: string; reference: string }>(sql`
		select p.id, c.name as payer, p.date, p.reference from payments p join customers c on c.id = p.payer_id
		where p.amount_sterling = ${-line.amount} and p.way in ('bank', 'cheque') and p.date <= ${line.date}
			and not exists (select 1 from payment_reversals v where v.payment_id = p.id)
		order by p.date desc, p.id desc limit 4`);
}

export const toMatch = (row: typeof bankLines.$inferSelect): ToMatch => ({
	id: row.id,
	date: row.date,
	amount: BigInt(row.amount),
	text: row.text,
	payer: row.payer
});

/** Open lines that came in, for the thread that matches them all. */
export function linesToMatch(db: Reader): ToMatch[] {
	return db
		.select()
		.from(bankLines)
		.where(and(eq(bankLines.state, 'open'), gt(bankLines.amount, 0)))
		.orderBy(asc(bankLines.id))
		.all()
		.map(toMatch);
}

/** A proposal as it is kept, and as it is accepted. */
export const kept = ({ payerId, score, sure, recorded, shares }: Proposal): KeptProposal => ({
	payerId,
	score,
	sure,
	...(recorded ? { recorded } : {}),
	shares: shares.map(({ documentId, amount, withheld }) => ({
		documentId,
		amount: Number(amount),
		withheld: withheld === null ? null : Number(withheld)
	}))
});

/** Keeps the best proposal of each line that is still open. */
export function keepProposals(db: Database, found: { id: number; best: Proposal | null }[]): void {
	writeAtOnce(db, (tx) => {
		for (const { id, best } of found)
			tx.update(bankLines)
				.set({ proposal: best && kept(best) })
				.where(and(eq(bankLines.id, id), eq(bankLines.state, 'open')))
				.run();
	});
}
