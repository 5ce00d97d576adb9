// Where an invoice stands: worked out by the core from its payments, credits and refunds, kept in openItems.
import { eq, sql } from 'drizzle-orm';
import { FiguresError } from '../../../core/figures/types';
import { displayMoney } from '../../../core/money/display';
import { RefusedError } from '../../../core/refusals';
import { paidParts, type PaidPart } from '../../../core/settlement/deductions';
import { settle } from '../../../core/settlement/settle';
import type { Settlement, SettlementEntry } from '../../../core/settlement/types';
import type { Reader, Transaction } from '../../db/connection';
import type { Posting } from '../../db/journal';
import { documents, openItems, writeOffs } from '../../db/schema';
import type { World } from '../../world';
import { note } from '../trail/documents';
import { stillToPay } from './position';

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
				a.withheld_stated as withheld, null as deduction, p.date as paidOn, 0 as moved, 0 as rank, a.id as n
			from allocations a join payments p on p.id = a.payment_id
			where a.document_id in (${ids}) and not exists (select 1 from payment_reversals v where v.payment_id = p.id)
			union all select c.corrects_id, 'credit', c.issue_date, c.total, null, c.deduction, null, 0, 1, c.id
			from documents c where c.corrects_id in (${ids}) and c.state = 'issued'
			union all select document_id, 'refund', date, amount, withheld_stated, null, null, 0, 3, id
			from refunds where document_id in (${ids})
			-- What went to another invoice left this one as money given back would, and came there as a payment, both with
			-- what was withheld from it.
			union all select from_id, 'refund', date, amount, withheld, null, null, 1, 2, id from transfers
			where from_id in (${ids}) and not exists (select 1 from transfer_reversals v where v.transfer_id = id)
			union all select to_id, 'payment', date, amount, withheld, null, paid_on, 1, 2, id from transfers
			where to_id in (${ids}) and not exists (select 1 from transfer_reversals v where v.transfer_id = id)
			union all select document_id, 'writeOff', max(date), sum(amount), null, null, null, 0, 4, 0
			from write_offs where document_id in (${ids}) group by document_id having sum(amount) > 0
			order by 1, rank, n`)) {
			found.get(row.id)!.push({
				date: row.date,
				type: row.type,
				amount: BigInt(row.amount),
				withheld: row.withheld === null ? null : BigInt(row.withheld),
				deduction: row.deduction === null ? null : BigInt(row.deduction),
				...(row.paidOn === null ? {} : { paidOn: row.paidOn }),
				...(row.moved ? { moved: true } : {})
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
	paidOn: string | null;
	moved: number;
}

/** Everything that has settled one invoice so far. */
export function settlementEntries(db: Reader, documentId: number): SettlementEntry[] {
	return settledBy(db, [documentId]).get(documentId)!;
}

/**
 * An invoice settled by its entries. Where a contractor deducts although nothing was expected, what it deducts counts as
 * any deduction does.
 * @throws FiguresError where an entry contradicts what came before it
 */
export function settleDocument(
	document: { total: number; deduction: number | null },
	entries: SettlementEntry[]
): Settlement {
	const deduction = expectedOf(document, entries);
	return settle({
		total: BigInt(document.total),
		deduction,
		// Where nobody deducts, nothing withheld is said of nothing: money that moved came without a deduction.
		entries: deduction === null ? entries.map((entry) => ({ ...entry, withheld: null })) : entries
	});
}

function expectedOf(
	{ deduction }: { deduction: number | null },
	entries: readonly SettlementEntry[]
): bigint | null {
	if (deduction !== null) return BigInt(deduction);
	return entries.some((entry) => entry.withheld !== null && entry.withheld > 0n) ? 0n : null;
}

export interface SettledChange {
	/** How much the withheld total changed through what just happened, in pence. */
	withheldChange: number;
	outstanding: number;
	overpaid: number;
	paidInFull: boolean;
	/**
	 * What follows from it beside the money itself, balanced: deductions by the day they were made, and a loss that is none
	 * any more.
	 */
	postings: Posting[];
}

/**
 * Works an invoice's position out anew and stores it, in the transaction of what just happened. A debt that was given up
 * and is settled after all is taken up again as far as it is.
 * @param because why a loss is taken back
 * @param pending what this transaction is going to post: an invoice may be settled more than once before it does
 * @throws RefusedError where what happened does not fit what was done since
 */
export function resettle(
	tx: Transaction,
	world: Pick<World, 'clock'>,
	documentId: number,
	{
		because = 'Paid after all',
		pending = []
	}: { because?: string; pending?: readonly Posting[] } = {}
): SettledChange {
	const item = tx.select().from(openItems).where(eq(openItems.documentId, documentId)).get();
	const original = tx
		.select({ total: documents.total, deduction: documents.deduction })
		.from(documents)
		.where(eq(documents.id, documentId))
		.get();
	if (!item || !original) throw new Error(`no open item for document ${documentId}`);
	let { entries, result } = settledNow(tx, documentId, original);
	const lost = sumOf(entries, 'writeOff');
	const back = result.overpaid < lost ? result.overpaid : lost;
	if (back > 0n) {
		takeLossBack(tx, world, item, Number(back), because);
		({ entries, result } = settledNow(tx, documentId, original));
	}
	const credited = Number(sumOf(entries, 'credit'));
	const creditedDeduction = entries.reduce((total, entry) => total + (entry.deduction ?? 0n), 0n);
	const writtenOff = Number(sumOf(entries, 'writeOff'));
	const outstanding = Number(result.outstanding);
	const overpaid = Number(result.overpaid);
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
	const expected = expectedOf(original, entries);
	const deduction = expected === null ? null : Number(expected - creditedDeduction);
	tx.update(openItems)
		.set({
			deduction,
			cash,
			withheld,
			credited,
			writtenOff,
			outstanding,
			toPay: stillToPay({ outstanding, deduction, withheld }),
			overpaid,
			inHand: Number(result.inHand),
			state,
			settledOn: result.settledOn
		})
		.where(eq(openItems.documentId, documentId))
		.run();
	const about = { documentId, customerId: item.customerId };
	const byDay = deductionChanges(tx, documentId, paidParts(entries, result), pending);
	const withheldChange = byDay.reduce((sum, one) => sum + one.amount, 0);
	return {
		withheldChange,
		outstanding,
		overpaid,
		paidInFull: outstanding === 0,
		postings: [
			...byDay.map((one): Posting => ({ account: 'cisWithheld', ...one, ...about })),
			{ account: 'badDebts', amount: -Number(back), ...about },
			{ account: 'receivable', amount: Number(back) - withheldChange, ...about }
		]
	};
}

function settledNow(
	tx: Transaction,
	documentId: number,
	original: { total: number; deduction: number | null }
): { entries: SettlementEntry[]; result: Settlement } {
	const entries = settlementEntries(tx, documentId);
	try {
		return { entries, result: settleDocument(original, entries) };
	} catch (error) {
		if (!(error instanceof FiguresError)) throw error;
		throw new RefusedError(
			'That does not fit what was recorded since: the deduction it is about has gone elsewhere. Give it a later day.'
		);
	}
}

const sumOf = (entries: readonly SettlementEntry[], type: SettlementEntry['type']): bigint =>
	entries.reduce((sum, entry) => (entry.type === type ? sum + entry.amount : sum), 0n);

/** How what was withheld on an invoice differs from what the journal has of it, by the day the contractor paid. */
function deductionChanges(
	tx: Transaction,
	documentId: number,
	parts: readonly PaidPart[],
	pending: readonly Posting[]
): { paidOn: string; amount: number }[] {
	const days = new Map<string, number>();
	for (const { paidOn, withheld } of parts)
		days.set(paidOn, (days.get(paidOn) ?? 0) + Number(withheld));
	for (const { day, amount } of tx.all<{ day: string; amount: number }>(sql`
		select coalesce(l.paid_on, e.date) as day, sum(l.amount) as amount
		from journal_lines l join journal_entries e on e.id = l.entry_id
		where l.document_id = ${documentId} and l.account = 'cisWithheld' group by day`))
		days.set(day, (days.get(day) ?? 0) - amount);
	for (const { account, amount, paidOn, documentId: of } of pending)
		if (account === 'cisWithheld' && of === documentId && paidOn)
			days.set(paidOn, (days.get(paidOn) ?? 0) - amount);
	return [...days].flatMap(([paidOn, amount]) => (amount === 0 ? [] : [{ paidOn, amount }]));
}

function takeLossBack(
	tx: Transaction,
	{ clock }: Pick<World, 'clock'>,
	{ documentId, currency }: Pick<typeof openItems.$inferSelect, 'documentId' | 'currency'>,
	amount: number,
	reason: string
): void {
	const before = tx
		.select({ count: sql<number>`count(*)` })
		.from(writeOffs)
		.where(eq(writeOffs.documentId, documentId))
		.get()!.count;
	const at = clock.now();
	tx.insert(writeOffs)
		.values({
			key: `taken-up:${documentId}:${before}`,
			documentId,
			date: clock.today(),
			amount: -amount,
			reason,
			recordedAt: at
		})
		.run();
	note(tx, {
		documentId,
		at,
		who: 'axiometer',
		what: 'takenUpAgain',
		detail: `${displayMoney(amount, currency)}: ${reason}`
	});
}
