// What a draft is read with: its seller and customer, the rate of its money, what it follows and what it corrects.
import { eq } from 'drizzle-orm';
import type { SheetContext } from '../../../core/sheet/context';
import type { Sheet, SheetAbout } from '../../../core/sheet/types';
import type { Reader } from '../../db/connection';
import { documents } from '../../db/schema';
import { exchangeRatesOf } from '../business/exchange';
import { sellerRecord } from '../business/settings';
import { customerRecord } from '../customers/parts';
import { dressOf } from '../letterheads/dress';
import { frozenFigures } from '../../../core/documents/frozen';

export function sheetContext(db: Reader, sheet: Sheet, today: string): SheetContext {
	const follows = followed(db, sheet);
	return {
		seller: sellerRecord(db),
		customer: customerRecord(db, sheet.customerId, sheet),
		today,
		dress: dressOf(db, sheet),
		rates: exchangeRatesOf(db),
		...exchangeOf(db, sheet),
		...(follows ? { follows } : {})
	};
}

/** What corrects an invoice at its tax point has its rate (VATA 1994 Sch. 6 para. 11). */
function exchangeOf(db: Reader, { about, currency }: Sheet): Pick<SheetContext, 'exchange'> {
	if (!about || !currency) return {};
	const row = db
		.select({ frozen: documents.frozen, currency: documents.currency })
		.from(documents)
		.where(eq(documents.id, about.invoiceId))
		.get();
	const exchange = row?.currency === currency ? row.frozen?.exchange : undefined;
	return exchange ? { exchange: { rate: exchange.rate, source: exchange.source } } : {};
}

/**
 * What a release copies of the invoices that held back (docs/tax-gb.md 3), and a correction of its invoice: its tax point,
 * and for a higher price how its VAT was decided. Nothing for any other sheet.
 */
function followed(db: Reader, { releases, about }: Sheet): SheetContext['follows'] {
	if (about) return corrected(db, about);
	const [first] = releases ?? [];
	if (first === undefined) return undefined;
	const row = db
		.select({ frozen: documents.frozen })
		.from(documents)
		.where(eq(documents.id, first))
		.get();
	return row?.frozen
		? { reverseCharge: frozenFigures(row.frozen).decisions.reverseCharge.answer }
		: undefined;
}

function corrected(db: Reader, { as, invoiceId }: SheetAbout): SheetContext['follows'] {
	const row = db
		.select({ number: documents.number, frozen: documents.frozen })
		.from(documents)
		.where(eq(documents.id, invoiceId))
		.get();
	if (!row?.frozen || !row.number) return undefined;
	const { issueDate, taxPoint, workFinished } = row.frozen;
	return {
		...(as === 'debit'
			? { reverseCharge: frozenFigures(row.frozen).decisions.reverseCharge.answer }
			: {}),
		of: { as, number: row.number, issueDate, taxPoint, workFinished }
	};
}
