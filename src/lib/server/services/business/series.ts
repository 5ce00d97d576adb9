// Number series: what comes next, and where the owner began anew.
import { eq } from 'drizzle-orm';
import type { Transaction, Reader } from '../../db/connection';
import { numberSeries } from '../../db/schema';
import { FieldError } from '../../../core/refusals';

export type SeriesKind = typeof numberSeries.$inferSelect.kind;

export interface SeriesForm {
	invoicePattern: string;
	invoiceNext: number;
}

export function loadSeries(db: Reader, kind: SeriesKind) {
	const row = db.select().from(numberSeries).where(eq(numberSeries.kind, kind)).get();
	if (!row) throw new Error(`no number series for ${kind}`);
	return row;
}

/** Keeps pattern and next number as the settings form says. @throws FieldError */
export function saveSeries(tx: Transaction, form: SeriesForm, first: boolean): void {
	if (first) {
		tx.insert(numberSeries)
			.values([
				{ kind: 'invoice', pattern: form.invoicePattern, next: form.invoiceNext },
				{ kind: 'creditNote', pattern: 'CN-{nnnn}', next: 1 },
				{ kind: 'quote', pattern: 'Q-{nnnn}', next: 1 }
			])
			.onConflictDoNothing()
			.run();
		return;
	}
	const series = loadSeries(tx, 'invoice');
	if (form.invoiceNext < series.next && form.invoicePattern === series.pattern) {
		throw new FieldError({
			invoiceNext: `${series.next} comes next: lower numbers have been taken.`
		});
	}
	tx.update(numberSeries)
		.set({ pattern: form.invoicePattern })
		.where(eq(numberSeries.kind, 'invoice'))
		.run();
	goOnFrom(tx, 'invoice', form.invoiceNext);
}

/** The series goes on from here; that it does is no gap. */
export function goOnFrom(tx: Transaction, kind: SeriesKind, next: number): void {
	const series = loadSeries(tx, kind);
	if (next === series.next) return;
	tx.update(numberSeries)
		.set({ next, starts: [...series.starts, next] })
		.where(eq(numberSeries.kind, kind))
		.run();
}
