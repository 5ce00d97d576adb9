// What reports are made of: invoices of a period with all that happened to them, and what was bought.
import { asc, inArray, sql } from 'drizzle-orm';
import { frozenFigures } from '../../../core/documents/frozen';
import type { Frozen } from '../../../core/documents/types';
import type { EarnedInvoice, Period } from '../../../core/reports/income';
import type { ReturnGroup, ReturnInvoice } from '../../../core/regimes/gb/vatReturn';
import { BOOKS } from '../../../core/money/currencies';
import { converted } from '../../../core/money/decimal';
import { shareOfSterling } from '../../../core/money/sterling';
import type { Minor } from '../../../core/money/types';
import type { SettlementEntry } from '../../../core/settlement/types';
import { must } from '../../actor';
import type { Reader } from '../../db/connection';
import { documents, taxPoints } from '../../db/schema';
import { settleDocument, settledBy } from '../ledger/settlement';

export interface ReportInvoice extends EarnedInvoice {
	number: string;
	customerId: number;
	customer: string;
	/** The owner's kind of work, as it was called; empty: none. */
	workKind: string;
	frozen: Frozen;
	creditDocuments: { id: number; number: string; frozen: Frozen; issued: string }[];
}

/** Invoices to which something happened in a period: issued, supplied, paid, credited, given back. Hand-written: one union over the indexes. */
function touched(db: Reader, { from, to }: Period): number[] {
	const within = (column: ReturnType<typeof sql>) => sql`${column} between ${from} and ${to}`;
	return db
		.all<{ id: number }>(
			sql`
		select d.id from documents d where d.kind = 'invoice' and d.state = 'issued' and ${within(sql`d.issue_date`)}
		union select t.document_id from tax_points t join documents d on d.id = t.document_id where d.kind = 'invoice' and ${within(sql`t.date`)}
		union select c.corrects_id from documents c where c.corrects_id is not null and c.state = 'issued' and ${within(sql`c.issue_date`)}
		union select a.document_id from allocations a join payments p on p.id = a.payment_id where ${within(sql`coalesce(a.applied_on, p.date)`)}
		union select document_id from refunds where ${within(sql`date`)}
		union select from_id from transfers where ${within(sql`date`)}
		union select to_id from transfers where ${within(sql`date`)}
		order by 1`
		)
		.map(({ id }) => id);
}

const AT_ONCE = 500;

/** Read in pieces; whoever calls gives others their turn between them. */
export function* reportInvoices(db: Reader, period: Period): Generator<ReportInvoice[]> {
	must('books');
	const ids = touched(db, period);
	for (let start = 0; start < ids.length; start += AT_ONCE) {
		const some = ids.slice(start, start + AT_ONCE);
		const rows = db
			.select()
			.from(documents)
			.where(inArray(documents.id, some))
			.orderBy(asc(documents.id))
			.all();
		const credits = db
			.select()
			.from(documents)
			.where(sql`${inArray(documents.correctsId, some)} and ${documents.state} = 'issued'`)
			.orderBy(asc(documents.id))
			.all();
		const settled = settledBy(db, some);
		yield rows.map((row): ReportInvoice => {
			const own = credits.filter(({ correctsId }) => correctsId === row.id);
			const entries = settled.get(row.id) ?? [];
			const inPence = penceOf(row);
			const results = settleDocument(
				{ total: row.total, deduction: row.deduction },
				entries
			).entries;
			return {
				id: row.id,
				number: row.number!,
				customerId: row.customerId!,
				customer: row.customerName,
				workKind: row.frozen!.workKind?.name ?? '',
				frozen: row.frozen!,
				issued: row.issueDate!,
				before: row.origin === 'opening',
				net: BigInt(row.netSterling ?? row.net),
				total: BigInt(row.totalSterling),
				credits: own.map((credit) => ({
					id: credit.id,
					issued: credit.issueDate!,
					net: BigInt(credit.netSterling ?? credit.net),
					total: BigInt(credit.totalSterling)
				})),
				creditDocuments: own.map((credit) => ({
					id: credit.id,
					number: credit.number!,
					frozen: credit.frozen!,
					issued: credit.issueDate!
				})),
				entries: entries.flatMap((entry, index) =>
					entry.type === 'payment' || entry.type === 'refund'
						? [
								{
									date: entry.date,
									type: entry.type,
									amount: inPence(entry),
									withheld: results[index]?.withheld ?? entry.withheld ?? 0n
								}
							]
						: []
				)
			};
		});
	}
}

/**
 * What came for an invoice in other money, at its document's rate: what the bank gave beside that is a difference of its
 * own. Worked out on the running sum, so that all of it together is the invoice's sterling.
 */
function penceOf({ currency, total, totalSterling }: typeof documents.$inferSelect) {
	let so = 0;
	return ({ type, amount }: SettlementEntry): bigint => {
		if (currency === BOOKS) return amount;
		const before = shareOfSterling(so, total, totalSterling);
		so += type === 'refund' ? -Number(amount) : Number(amount);
		const moved = shareOfSterling(so, total, totalSterling) - before;
		return BigInt(type === 'refund' ? -moved : moved);
	};
}

/** Boxes are in pounds (VATA 1994 Sch. 6 para. 11). */
function groupsOf(frozen: Frozen): ReturnGroup[] {
	const { vat, sterling } = frozenFigures(frozen);
	const pence = (amount: Minor) => (sterling ? converted(amount, sterling.rate) : amount);
	return vat.map(({ treatment, net, vat: tax, reverseCharge }) => ({
		treatment,
		net: pence(net),
		vat: pence(tax),
		reverseCharge
	}));
}

/** An invoice as the core's VAT return takes it. */
export function returnInvoice(db: Reader, invoice: ReportInvoice): ReturnInvoice | null {
	const { frozen } = invoice;
	// What was issued while there was no registration is in no return.
	if (!frozen.seller.vatRegistered) return null;
	const points = db
		.select()
		.from(taxPoints)
		.where(sql`${taxPoints.documentId} = ${invoice.id}`)
		.orderBy(asc(taxPoints.date))
		.all();
	const advances = points
		.filter(({ because, date }) => because === 'payment' && date < frozen.taxPoint)
		.map(({ date, net, vatCharged }) => ({ date, amount: BigInt(net + vatCharged) }));
	return {
		id: String(invoice.id),
		taxPoint: frozen.taxPoint,
		issued: frozen.issueDate,
		due: frozen.dueDate,
		inAdvance: frozen.issueDate < frozen.workFinished,
		returned: frozen.sheet.opening?.returned ?? false,
		advances,
		groups: groupsOf(frozen),
		credits: invoice.creditDocuments.map(({ id, frozen: credit, issued }) => ({
			id: String(id),
			issued,
			groups: groupsOf(credit)
		})),
		entries: invoice.entries
	};
}
