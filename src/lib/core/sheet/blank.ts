// New sheets and new lines, and what a new line takes over from the one above.
import type { CustomerKind } from '../regimes/types';
import type { LineTags, Sheet, SheetHeading, SheetLine, SheetRow } from './types';

export function blankSheet(): Sheet {
	return {
		customerId: null,
		siteId: null,
		contract: null,
		issueDate: '',
		workFinished: '',
		dueDate: '',
		termsDays: '',
		reference: '',
		orderNumber: '',
		note: '',
		pricesIncludeVat: false,
		roundVatDown: false,
		grouping: 'headings',
		discount: '',
		retention: '',
		rows: []
	};
}

/** A line after `above`: it takes over kind, unit, VAT and its reason, what it is in reports, and nothing that is typed anew. */
export function blankLine(id: string, above?: SheetRow): SheetLine {
	const model = above?.type === 'line' ? above : undefined;
	return {
		id,
		type: 'line',
		kind: model?.kind ?? 'labour',
		description: '',
		quantity: '1',
		unit: model?.unit ?? '',
		unitPrice: '',
		vat: model?.vat ?? 'standard',
		vatReason: model?.vatReason ?? '',
		discount: '',
		cost: '',
		...tagsOf(model ?? {})
	};
}

/** What a line is in reports, where it says so. */
export const tagsOf = ({
	income,
	centre
}: Partial<LineTags>): Pick<SheetLine, 'income' | 'centre'> => ({
	...(income ? { income } : {}),
	...(centre ? { centre } : {})
});

export function blankHeading(id: string): SheetHeading {
	return { id, type: 'heading', text: '' };
}

/** A line in which nothing has been typed yet counts for nothing. */
export function isBlank(row: SheetRow): boolean {
	return row.type === 'line'
		? row.description.trim() === '' && row.unitPrice.trim() === '' && row.cost.trim() === ''
		: row.text.trim() === '';
}

/** A household is quoted totals with VAT (VATA 1994 s.19(2)); everyone else prices without. */
export function pricesIncludeVatFor(kind: CustomerKind): boolean {
	return kind === 'household';
}

/** The lines of a sheet that count, in order: those that become lines of the computation. */
export const sheetLines = (sheet: Sheet): SheetLine[] =>
	sheet.rows.filter((row): row is SheetLine => row.type === 'line' && !isBlank(row));
