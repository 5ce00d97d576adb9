// Where an invoice stands: worked out by the core from its payments, credits and refunds, kept in openItems.
import { and, eq, isNull, or, sql } from 'drizzle-orm';
import type { SettlementEntry } from '../../../core/settlement/types';
import { stillToPay } from '../../../core/settlement/position';
import { settle } from '../../../core/settlement/settle';
import type { Transaction, Reader } from '../../db/connection';
import {
	allocations,
	documents,
	openItems,
	paymentReversals,
	payments,
	refunds,
	transfers,
	writeOffs
} from '../../db/schema';

/** Everything that has settled an invoice so far, in the core's form. */
export function settlementEntries(db: Reader, documentId: number): SettlementEntry[] {
	const paid = db
		.select({
			date: sql<string>`coalesce(${allocations.appliedOn}, ${payments.date})`,
			amount: allocations.amount,
			withheld: allocations.withheldStated
		})
		.from(allocations)
		.innerJoin(payments, eq(payments.id, allocations.paymentId))
		.leftJoin(paymentReversals, eq(paymentReversals.paymentId, payments.id))
		.where(and(eq(allocations.documentId, documentId), isNull(paymentReversals.paymentId)))
		.orderBy(allocations.id)
		.all();
	const credits = db
		.select({ date: documents.issueDate, amount: documents.total, deduction: documents.deduction })
		.from(documents)
		.where(and(eq(documents.correctsId, documentId), eq(documents.state, 'issued')))
		.orderBy(documents.id)
		.all();
	const given = db
		.select()
		.from(refunds)
		.where(eq(refunds.documentId, documentId))
		.orderBy(refunds.id)
		.all();
	const moved = db
		.select()
		.from(transfers)
		.where(or(eq(transfers.fromId, documentId), eq(transfers.toId, documentId)))
		.orderBy(transfers.id)
		.all();
	const lost = db
		.select({
			amount: sql<number>`coalesce(sum(${writeOffs.amount}), 0)`,
			date: sql<string>`max(${writeOffs.date})`
		})
		.from(writeOffs)
		.where(eq(writeOffs.documentId, documentId))
		.get()!;
	return [
		...paid.map((row): SettlementEntry => ({
			date: row.date,
			type: 'payment',
			amount: BigInt(row.amount),
			withheld: row.withheld === null ? null : BigInt(row.withheld),
			deduction: null
		})),
		...credits.map((row): SettlementEntry => ({
			date: row.date!,
			type: 'credit',
			amount: BigInt(row.amount),
			withheld: null,
			deduction: row.deduction === null ? null : BigInt(row.deduction)
		})),
		...given.map((row): SettlementEntry => ({
			date: row.date,
			type: 'refund',
			amount: BigInt(row.amount),
			withheld: null,
			deduction: null
		})),
		// Credit that went to another invoice left this one as money given back would, and came there as a payment.
		...moved.map((row): SettlementEntry => ({
			date: row.date,
			type: row.fromId === documentId ? 'refund' : 'payment',
			amount: BigInt(row.amount),
			withheld: null,
			deduction: null
		})),
		...(lost.amount > 0
			? [
					{
						date: lost.date,
						type: 'writeOff' as const,
						amount: BigInt(lost.amount),
						withheld: null,
						deduction: null
					}
				]
			: [])
	];
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
	const last = entries
		.map((entry) => entry.date)
		.sort()
		.at(-1);
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
			settledOn: outstanding === 0 ? (last ?? null) : null
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
