// Where an invoice stands: worked out by the core from its payments, credits and refunds, kept in openItems.
import { eq, sql } from 'drizzle-orm';
import type { SettlementEntry } from '../../../core/settlement/types';
import { stillToPay } from './position';
import { settle } from '../../../core/settlement/settle';
import type { Transaction, Reader } from '../../db/connection';
import { documents, openItems } from '../../db/schema';

export type SettledBy = Map<number, SettlementEntry[]>;

/** SQLite takes a limited number of values in one statement. */
const AT_ONCE = 500;

/**
 * Everything that has settled invoices so far, in the core's form, in a few reads however many invoices there are.
 * Written by hand: one union in the order in which the kinds of a day are taken.
 */
export function settledBy(db: Reader, documentIds: readonly number[]): SettledBy {
	const found: SettledBy = new Map(documentIds.map((id) => [id, []]));
	for (let start = 0; start < documentIds.length; start += AT_ONCE) {
		const ids = sql.join(
			documentIds.slice(start, start + AT_ONCE).map((id) => sql`${id}`),
			sql`, `
		);
		for (const row of db.all<SettledRow>(sql`
			select a.document_id as id, 'payment' as type, coalesce(a.applied_on, p.date) as date, a.amount,
				a.withheld_stated as withheld, null as deduction, 0 as rank, a.id as n
			from allocations a join payments p on p.id = a.payment_id
			where a.document_id in (${ids}) and not exists (select 1 from payment_reversals v where v.payment_id = p.id)
			union all select c.corrects_id, 'credit', c.issue_date, c.total, null, c.deduction, 1, c.id
			from documents c where c.corrects_id in (${ids}) and c.state = 'issued'
			union all select document_id, 'refund', date, amount, null, null, 2, id from refunds where document_id in (${ids})
			-- What went to another invoice left this one as money given back would, and came there as a payment.
			union all select from_id, 'refund', date, amount, null, null, 3, id from transfers where from_id in (${ids})
			union all select to_id, 'payment', date, amount, null, null, 3, id from transfers where to_id in (${ids})
			union all select document_id, 'writeOff', max(date), sum(amount), null, null, 4, 0
			from write_offs where document_id in (${ids}) group by document_id having sum(amount) > 0
			order by 1, 7, 8`)) {
			found.get(row.id)!.push({
				date: row.date,
				type: row.type,
				amount: BigInt(row.amount),
				withheld: row.withheld === null ? null : BigInt(row.withheld),
				deduction: row.deduction === null ? null : BigInt(row.deduction)
			});
		}
	}
	return found;
}

interface SettledRow {
	id: number;
	type: SettlementEntry['type'];
	date: string;
	amount: number;
	withheld: number | null;
	deduction: number | null;
}

/** Everything that has settled one invoice so far. */
export function settlementEntries(db: Reader, documentId: number): SettlementEntry[] {
	return settledBy(db, [documentId]).get(documentId)!;
}

export interface SettledChange {
	/** How much the withheld total changed through what just happened, in pence. */
	withheldChange: number;
	outstanding: number;
	overpaid: number;
	paidInFull: boolean;
}

/** Works an invoice's position out anew and stores it, in the transaction of what just happened. */
export function resettle(tx: Transaction, documentId: number): SettledChange {
	const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
	const original = tx
		.select({ total: documents.total, deduction: documents.deduction })
		.from(documents)
		.where(eq(documents.id, documentId))
		.get();
	if (!item || !original) throw new Error(`no open item for document ${documentId}`);
	const entries = settlementEntries(tx, documentId);
	const result = settle({
		total: BigInt(original.total),
		deduction: original.deduction === null ? null : BigInt(original.deduction),
		entries
	});
	const credits = entries.filter((entry) => entry.type === 'credit');
	const credited = Number(credits.reduce((total, entry) => total + entry.amount, 0n));
	const creditedDeduction = Number(
		credits.reduce((total, entry) => total + (entry.deduction ?? 0n), 0n)
	);
	const writtenOff = Number(
		entries
			.filter((entry) => entry.type === 'writeOff')
			.reduce((total, entry) => total + entry.amount, 0n)
	);
	const outstanding = Number(result.outstanding);
	const cash = Number(result.cash);
	const withheld = Number(result.withheld);
	const state =
		outstanding > 0
			? cash + withheld + credited > 0
				? 'partPaid'
				: 'open'
			: credited >= original.total
				? 'credited'
				: writtenOff > 0
					? 'writtenOff'
					: 'paid';
	const deduction = original.deduction === null ? null : original.deduction - creditedDeduction;
	tx.update(openItems)
		.set({
			deduction,
			cash,
			withheld,
			credited,
			writtenOff,
			outstanding,
			toPay: stillToPay({ outstanding, deduction, withheld }),
			overpaid: Number(result.overpaid),
			state,
			settledOn: result.settledOn
		})
		.where(eq(openItems.documentId, documentId))
		.run();
	return {
		withheldChange: withheld - item.withheld,
		outstanding,
		overpaid: Number(result.overpaid),
		paidInFull: outstanding === 0
	};
}
