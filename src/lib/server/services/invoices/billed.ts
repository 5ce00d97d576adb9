// What issuing means for the work behind a document: it is billed, held back, or released.
import { addDays } from '../../../core/calendar/manipulation';
import type { Frozen } from '../../../core/documents/types';
import type { InvoiceFigures } from '../../../core/figures/types';
import { sheetLines } from '../../../core/sheet/blank';
import type { Problem, Sheet } from '../../../core/sheet/types';
import type { Transaction, Reader } from '../../db/connection';
import { retentions } from '../../db/schema';
import { takenProblems, jobsOf, settleJobState, syncTaken } from '../jobs/takenParts';
import { noteUsed } from '../prices/prices';
import { releasedBy, stageProblems, takeStageOver } from '../jobs/stageBooks';

/** What keeps a draft from billing what it says it bills. */
export function billingProblems(db: Reader, documentId: number, sheet: Sheet): Problem[] {
	const holders = [documentId, ...replacedBy(sheet)];
	return [...takenProblems(db, holders, sheet), ...stageProblems(db, documentId, holders, sheet)];
}

/** The invoice in whose place a sheet stands: what it holds is as good as the sheet's own. */
const replacedBy = ({ about }: Sheet): number[] =>
	about?.as === 'replacement' ? [about.invoiceId] : [];

/** What a credited invoice billed is taken over by what stands in its place, as far as it bills it still. */
export function takeOver(
	tx: Transaction,
	invoiceId: number,
	documentId: number,
	sheet: Sheet
): void {
	syncTaken(tx, documentId, sheet);
	takeStageOver(tx, invoiceId, documentId, sheet);
}

/** The net of a document by the job it bills; they add up to its net. Pence. */
export function salesByJob(
	frozen: Frozen,
	figures: InvoiceFigures
): { jobId: number | null; amount: number }[] {
	const sums = new Map<number | null, bigint>();
	for (const [index, line] of sheetLines(frozen.sheet).entries()) {
		const jobId = line.jobId ?? null;
		sums.set(jobId, (sums.get(jobId) ?? 0n) + figures.lines[index]!.withoutVat);
	}
	// Rounding VAT down takes nothing from the net, but what is left over belongs somewhere.
	const rest = figures.net - [...sums.values()].reduce((sum, one) => sum + one, 0n);
	if (rest !== 0n) sums.set(null, (sums.get(null) ?? 0n) + rest);
	return [...sums].map(([jobId, amount]) => ({ jobId, amount: Number(amount) }));
}

/** A retention without a day agreed is looked at again after a year. */
const RETENTION_DAYS = 365;

/** In the transaction that issues an invoice. */
export function recordBilled(
	tx: Transaction,
	documentId: number,
	frozen: Frozen,
	figures: InvoiceFigures,
	at: number
): void {
	const { sheet } = frozen;
	const lines = sheetLines(frozen.sheet);
	noteUsed(
		tx,
		lines.flatMap((line) => line.itemId ?? [])
	);
	const held = new Map<number | null, bigint>();
	for (const [index, line] of lines.entries()) {
		const jobId = line.jobId ?? null;
		held.set(jobId, (held.get(jobId) ?? 0n) + figures.lines[index]!.retention);
	}
	for (const [jobId, amount] of held)
		if (amount > 0n)
			tx.insert(retentions)
				.values({
					documentId,
					jobId,
					amount: Number(amount),
					dueOn: sheet.retentionDue || addDays(frozen.issueDate, RETENTION_DAYS)
				})
				.run();
	if (sheet.releases?.length)
		tx.update(retentions).set({ releasedById: documentId }).where(releasedBy(sheet)).run();
	for (const jobId of jobsOf(tx, documentId)) settleJobState(tx, jobId, at);
}
