// From a draft to what is frozen: both parties, the dates, the figures, and the document as it reads.
import { NO_STANDING, sellerOn } from '../../../core/parties';
import { taxPointRecords, type Advance } from '../../../core/documents/taxPoints';
import { exchanged } from '../../../core/documents/frozen';
import type { Frozen } from '../../../core/documents/types';
import type { InvoiceFigures } from '../../../core/figures/types';
import type { SheetContext } from '../../../core/sheet/context';
import { readSheet, type SheetReading } from '../../../core/sheet/read';
import type { Problem, Sheet } from '../../../core/sheet/types';
import { RefusedError } from '../../../core/refusals';

/** A draft that may not be issued yet, with everything that stands in the way. */
export class NotReadyError extends RefusedError {
	constructor(readonly problems: Problem[]) {
		super(problems[0]?.message ?? 'This cannot be issued yet.');
		this.name = 'NotReadyError';
	}
}

export interface FrozenDraft {
	frozen: Frozen;
	figures: InvoiceFigures;
}

/**
 * @param advances what came before it and will pay it
 * @throws NotReadyError where something the law or arithmetic needs is missing or wrong.
 */
export function freezeDraft(
	sheet: Sheet,
	context: SheetContext,
	advances: readonly Advance[] = []
): FrozenDraft {
	const reading = readSheet(sheet, context);
	const stops = reading.problems.filter((problem) => problem.level === 'stop');
	if (stops.length || !reading.customer || !reading.figures) throw new NotReadyError(stops);
	const frozen = freeze(sheet, reading, reading.customer, context);
	const { figures } = reading;
	const isRegistered = (day: string) => sellerOn(context.seller, day).vatRegistered;
	const taxPoints = taxPointRecords(
		frozen,
		figures,
		reading.dates.taxPoint,
		isRegistered,
		advances
	);
	// All of it was paid before: nothing of it takes place any later.
	const paidOn = taxPoints.at(-1)!;
	if (paidOn.because === 'payment' && paidOn.date < frozen.taxPoint && !sheet.paidOn)
		return freezeDraft({ ...sheet, paidOn: paidOn.date }, context, advances);
	return { frozen: { ...frozen, taxPoints }, figures };
}

/**
 * What stands in other books is frozen as it stands there: what the law may have missed on it, it missed there.
 * @returns null where it has no customer, or no sums
 */
export function freezeOpening(sheet: Sheet, context: SheetContext): FrozenDraft | null {
	const reading = readSheet(sheet, context);
	const { customer, figures } = reading;
	if (!customer || !figures) return null;
	const frozen = freeze(sheet, reading, customer, context);
	const isRegistered = (day: string) => sellerOn(context.seller, day).vatRegistered;
	const taxPoints = taxPointRecords(frozen, figures, reading.dates.taxPoint, isRegistered);
	return { frozen: { ...frozen, taxPoints }, figures };
}

/** What a version of a quote is frozen from: both parties and the sheet; null where nothing is on it. */
export function freezeQuote(sheet: Sheet, context: SheetContext): Frozen | null {
	const reading = readSheet({ ...sheet, discount: '', retention: '' }, context);
	if (!reading.figures) return null;
	return freeze(sheet, reading, reading.customer ?? NOBODY, context);
}

function freeze(
	sheet: Sheet,
	{ dates, seller, exchange, figures }: SheetReading,
	customer: Frozen['customer'],
	{ follows, dress }: SheetContext
): Frozen {
	return {
		kind: 'invoice',
		seller,
		customer,
		sheet,
		issueDate: dates.issueDate,
		taxPoint: dates.taxPoint.date,
		workFinished: dates.workFinished,
		dueDate: dates.dueDate,
		contract: sheet.contract ?? 'construction',
		...dress,
		...(exchange && figures?.sterling ? { exchange: exchanged(exchange, figures) } : {}),
		...(follows?.reverseCharge === undefined ? {} : { reverseCharge: follows.reverseCharge }),
		...(follows?.of && sheet.about
			? {
					about: {
						as: follows.of.as,
						number: follows.of.number,
						issueDate: follows.of.issueDate,
						reason: sheet.about.reason.trim()
					}
				}
			: {}),
		corrects: null
	};
}

const NOBODY: Frozen['customer'] = {
	id: 0,
	kind: 'household',
	name: 'No customer yet',
	email: '',
	address: '',
	terms: null,
	orderNumberRequired: false,
	standing: NO_STANDING,
	billTo: null,
	sites: []
};

/** A draft as the customer would see it, however unfinished; null where there is nothing to show. */
export function previewDraft(sheet: Sheet, context: SheetContext): FrozenDraft | null {
	const reading = readSheet(sheet, context);
	if (!reading.figures) return null;
	return {
		frozen: freeze(sheet, reading, reading.customer ?? NOBODY, context),
		figures: reading.figures
	};
}
