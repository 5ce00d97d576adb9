// From which number a series goes on after invoices of other books came in.
import type { OpeningInvoice } from '../../../core/moving/invoices';
import { runningOf } from '../../../core/documents/numbers';
import type { Reader, Transaction } from '../../db/connection';
import { goOnFrom, loadSeries } from '../business/series';

/** Where the owner's own numbers are among them, the series goes on behind the highest. */
export function seriesAfter(
	db: Reader,
	invoices: readonly OpeningInvoice[]
): { next: number; last: string } | null {
	const series = loadSeries(db, 'invoice');
	let found: { next: number; last: string } | null = null;
	for (const { number } of invoices) {
		const running = runningOf(series.pattern, number);
		if (running !== null && running >= (found?.next ?? series.next))
			found = { next: running + 1, last: number };
	}
	return found;
}

export function raiseSeries(tx: Transaction, invoices: readonly OpeningInvoice[]): void {
	const after = seriesAfter(tx, invoices);
	if (after) goOnFrom(tx, 'invoice', after.next);
}
