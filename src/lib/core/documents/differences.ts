// How a draft that corrects an invoice differs from it: what it said, and what it says now, side by side.
import { displayDate } from '../calendar/conversion';
import type { InvoiceFigures } from '../figures/types';
import type { Currency } from '../money/currencies';
import { displayMoney } from '../money/display';
import { sheetLines } from '../sheet/blank';
import type { SheetReading } from '../sheet/read';
import type { Sheet, SheetLine } from '../sheet/types';
import { KIND_NAMES, TREATMENT_NAMES } from '../words';
import { frozenFigures } from './frozen';
import type { CustomerFacts, Frozen } from './types';

export interface Difference {
	what: string;
	/** Empty: it was not there. */
	before: string;
	/** Empty: it is not there any more. */
	now: string;
}

const differs = ({ before, now }: Difference): boolean => before !== now;

/** Only what differs, in the order of the paper; the sums last. */
export function differences(
	original: Frozen,
	sheet: Sheet,
	{ customer, dates, figures }: Pick<SheetReading, 'customer' | 'dates' | 'figures'>
): Difference[] {
	const was = frozenFigures(original);
	return [
		...partyDifferences(original.customer, customer),
		{
			what: 'Site',
			before: siteName(original.customer, original.sheet.siteId),
			now: customer ? siteName(customer, sheet.siteId) : ''
		},
		{
			what: 'Work finished',
			before: displayDate(original.workFinished),
			now: displayDate(dates.workFinished)
		},
		{ what: 'Due', before: displayDate(original.dueDate), now: displayDate(dates.dueDate) },
		{
			what: 'Their order',
			before: original.sheet.orderNumber.trim(),
			now: sheet.orderNumber.trim()
		},
		{ what: 'Reference', before: original.sheet.reference.trim(), now: sheet.reference.trim() },
		...lineDifferences(original.sheet, was, sheet, figures),
		{ what: 'Discount', before: original.sheet.discount.trim(), now: sheet.discount.trim() },
		{ what: 'Held back', before: original.sheet.retention.trim(), now: sheet.retention.trim() },
		...sumDifferences(was, figures, [original.sheet.currency, sheet.currency])
	].filter(differs);
}

function partyDifferences(before: CustomerFacts, now: CustomerFacts | null): Difference[] {
	const address = (one: CustomerFacts | null) =>
		one?.address.trim().replace(/\s*\n\s*/g, ', ') ?? '';
	return [
		{ what: 'Customer', before: before.name, now: now?.name ?? '' },
		{ what: 'Address', before: address(before), now: address(now) },
		{ what: 'Bill to', before: before.billTo?.name ?? '', now: now?.billTo?.name ?? '' }
	];
}

const siteName = ({ sites }: CustomerFacts, id: number | null): string =>
	sites.find((site) => site.id === id)?.name ?? '';

/** Lines keep their id when an invoice is corrected, so each is held against itself. */
function lineDifferences(
	before: Sheet,
	was: InvoiceFigures,
	sheet: Sheet,
	figures: InvoiceFigures | null
): Difference[] {
	const old = new Map(
		sheetLines(before).map((line, index) => [
			line.id,
			inWords(line, was.lines[index]?.net, before.currency)
		])
	);
	const found = sheetLines(sheet).map((line, index): Difference => {
		const now = inWords(line, figures?.lines[index]?.net, sheet.currency);
		const then = old.get(line.id) ?? '';
		old.delete(line.id);
		return { what: `Line ${index + 1}`, before: then, now };
	});
	return [
		...found,
		...[...old.values()].map((gone) => ({ what: 'Taken out', before: gone, now: '' }))
	];
}

function inWords(line: SheetLine, net: bigint | undefined, currency?: Currency): string {
	const { description, quantity, unit, unitPrice, discount, vat, cost, kind } = line;
	return [
		description.trim().split('\n')[0],
		`${[quantity.trim(), unit.trim()].filter(Boolean).join(' ')} × ${unitPrice.trim()}`,
		discount.trim() && `less ${discount.trim()}`,
		KIND_NAMES[kind],
		`VAT ${TREATMENT_NAMES[vat]}`,
		cost.trim() && `cost ${cost.trim()}`,
		net === undefined ? '' : displayMoney(net, currency)
	]
		.filter(Boolean)
		.join(' · ');
}

function sumDifferences(
	was: InvoiceFigures,
	now: InvoiceFigures | null,
	[then, since]: [Currency | undefined, Currency | undefined]
): Difference[] {
	const sum = (what: string, read: (figures: InvoiceFigures) => bigint): Difference => ({
		what,
		before: displayMoney(read(was), then),
		now: now ? displayMoney(read(now), since) : ''
	});
	return [
		sum('Without VAT', (figures) => figures.net),
		sum('VAT charged', (figures) => figures.vatCharged),
		sum('VAT they account for', (figures) => figures.vatReverseCharged),
		sum('Total', (figures) => figures.total),
		sum('CIS deduction', (figures) => figures.cis?.deduction ?? 0n),
		sum('To pay', (figures) => figures.payable)
	];
}
