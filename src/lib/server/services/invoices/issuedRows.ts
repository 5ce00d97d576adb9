// What issuing writes beside the document: its lines, what stands open, its journal entry.
import type { Frozen } from '../../../core/documents/types';
import type { InvoiceFigures } from '../../../core/figures/types';
import { BOOKS } from '../../../core/money/currencies';
import { shareOfSterling } from '../../../core/money/sterling';
import { sheetLines } from '../../../core/sheet/blank';
import { lineTaxPoint } from '../../../core/sheet/taxPoint';
import { getTableColumns } from 'drizzle-orm';
import { type Database, type Transaction } from '../../db/connection';
import { post } from '../../db/journal';
import {
	documentLines,
	documents,
	openItems,
	taxPoints,
	type Account,
	type DocumentOrigin
} from '../../db/schema';
import { frozenInput } from '../../../core/documents/frozen';
import { salesByJob } from './billed';
import { newToken } from '../business/keys';

export function insertShell(
	tx: Transaction,
	{
		frozen,
		correctsId,
		key,
		origin = 'correction'
	}: { frozen: Frozen; correctsId: number | null; key?: string; origin?: DocumentOrigin },
	now: number
): number {
	return tx
		.insert(documents)
		.values({
			kind: frozen.kind,
			origin,
			state: 'draft',
			key: key ?? newToken(),
			correctsId,
			sheet: frozen.sheet,
			createdAt: now,
			updatedAt: now
		})
		.returning({ id: documents.id })
		.get().id;
}

type LineRow = typeof documentLines.$inferInsert;
/** The lines of a document as they will stand beside it. */
export type IssuedLine = Omit<LineRow, 'documentId'>;

/** Worked out before the transaction: a long invoice is computed anew here, and others wait for a transaction. */
export function issuedLines(frozen: Frozen, figures: InvoiceFigures): IssuedLine[] {
	const input = frozenInput(frozen);
	return sheetLines(frozen.sheet).map((row, index) => {
		const line = figures.lines[index]!;
		const { cost, vat } = input.lines[index]!;
		return {
			position: index,
			kind: row.kind,
			description: row.description.trim(),
			quantity: row.quantity.trim(),
			unit: row.unit.trim(),
			unitPrice: row.unitPrice.trim(),
			vat,
			cost: cost === null ? null : Number(cost),
			net: Number(line.net),
			documentDiscount: Number(line.documentDiscount),
			retention: Number(line.retention),
			taxable: Number(line.taxable),
			withoutVat: Number(line.withoutVat),
			jobId: row.jobId ?? null,
			taxPoint: lineTaxPoint(row, frozen)
		};
	});
}

/** Within the caller's transaction, which is of this connection. */
export function insertLines(
	{ $client }: Database,
	documentId: number,
	lines: readonly IssuedLine[]
): void {
	const [first] = lines;
	if (!first) return;
	// By hand, prepared once: an invoice may have hundreds of lines, and nobody is answered while they are written.
	const columns = getTableColumns(documentLines);
	const names = Object.keys({ ...first, documentId }) as (keyof typeof columns)[];
	const insert = $client.prepare(
		`insert into document_lines (${names.map((name) => columns[name].name).join(', ')})
			values (${names.map((name) => `@${name}`).join(', ')})`
	);
	for (const one of lines) insert.run({ ...one, documentId });
}

export function openItem(
	tx: Transaction,
	documentId: number,
	frozen: Frozen,
	figures: InvoiceFigures
): void {
	tx.insert(openItems)
		.values({
			documentId,
			customerId: frozen.customer.id,
			payerId: frozen.customer.billTo?.id ?? frozen.customer.id,
			issueDate: frozen.issueDate,
			dueDate: frozen.dueDate,
			total: Number(figures.total),
			currency: frozen.sheet.currency ?? BOOKS,
			totalSterling: sterlingTotal(frozen, figures),
			deduction: figures.cis ? Number(figures.cis.deduction) : null,
			outstanding: Number(figures.total),
			toPay: Number(figures.total) - (figures.cis ? Number(figures.cis.deduction) : 0),
			state: 'open'
		})
		.run();
}

/** What it comes to in the books. Pence. */
export const sterlingTotal = ({ exchange }: Frozen, { total }: InvoiceFigures): number =>
	exchange ? exchange.net + exchange.vatCharged : Number(total);

/** Amounts with their pence, which together are a sum of pence. */
function withPence<T extends { amount: number }>(
	postings: readonly T[],
	pence: number | undefined
): (T & { sterling?: number })[] {
	if (pence === undefined) return [...postings];
	const whole = postings.reduce((sum, { amount }) => sum + amount, 0);
	let so = 0;
	return postings.map((posting) => {
		const before = shareOfSterling(so, whole, pence);
		so += posting.amount;
		return { ...posting, sterling: shareOfSterling(so, whole, pence) - before };
	});
}

/** VAT by the day that decides its period, in the document's own money. */
function vatByTaxPoint(
	{ taxPoints: records, taxPoint, exchange }: Frozen,
	{ vatCharged }: InvoiceFigures
): { date: string; vatCharged: number; sterling?: number }[] {
	if (!records) return [{ date: taxPoint, vatCharged: Number(vatCharged) }];
	if (!exchange) return records;
	const own = withPence(
		records.map((record) => ({ date: record.date, amount: record.vatCharged })),
		Number(vatCharged)
	);
	return own.map(({ date, amount, sterling }) => ({
		date,
		vatCharged: sterling!,
		sterling: amount
	}));
}

export function insertTaxPoints(tx: Transaction, documentId: number, frozen: Frozen): void {
	const records = frozen.taxPoints ?? [];
	if (records.length)
		tx.insert(taxPoints)
			.values(records.map((record) => ({ documentId, ...record })))
			.run();
}

export function postIssue(
	tx: Transaction,
	documentId: number,
	frozen: Frozen,
	figures: InvoiceFigures,
	recordedAt: number
): void {
	const sign = frozen.kind === 'invoice' ? 1 : -1;
	const { exchange } = frozen;
	// What other books had as income, and have returned, counts there.
	const opening = frozen.kind === 'invoice' ? frozen.sheet.opening : undefined;
	const income = opening ? 'opening' : frozen.sheet.charge === 'late' ? 'lateCharges' : 'sales';
	const vatAccount = opening?.returned ? 'opening' : 'vatOutput';
	post(tx, {
		currency: frozen.sheet.currency ?? BOOKS,
		key: `${frozen.kind === 'invoice' ? 'issue' : 'credit'}:${documentId}`,
		event: frozen.kind === 'invoice' ? 'issue' : 'credit',
		date: frozen.issueDate,
		documentId,
		customerId: frozen.customer.id,
		recordedAt,
		postings: [
			{ account: 'receivable', amount: sign * Number(figures.total) },
			...withPence(salesByJob(frozen, figures), exchange?.net).map(
				({ jobId, amount, sterling }) => ({
					account: income as Account,
					amount: -sign * amount,
					...(sterling === undefined ? {} : { sterling: -sign * sterling }),
					jobId
				})
			),
			...vatByTaxPoint(frozen, figures).map(({ date, vatCharged, sterling }) => ({
				account: vatAccount as Account,
				amount: -sign * vatCharged,
				...(sterling === undefined ? {} : { sterling: -sign * sterling }),
				...(vatAccount === 'vatOutput' ? { taxPoint: date } : {})
			}))
		]
	});
}
