// When a supply takes place for VAT, part by part: payments before the invoice make tax points of their own.
// Source: VATA 1994 s.6(3)–(5), (15); VAT Regulations 1995 reg. 13, 89, 90, 93.
import { addDays } from '../../calendar/manipulation';
import type { PlainDate } from '../../calendar/types';
import type { Minor } from '../../money/types';

/** VATA 1994 s.6(5): an invoice within this many days moves the tax point to its own date. */
export const DAYS_TO_INVOICE = 14;

/**
 * By what the time of supply goes: the end of the work (s.6), stage payments of a building contract (reg. 93), supplies
 * that go on (reg. 90), and what was held back under the contract (reg. 89).
 */
export const TAX_POINT_RULES = ['work', 'stages', 'continuous', 'retention'] as const;
export type TaxPointRule = (typeof TAX_POINT_RULES)[number];

export interface TaxPointsInput {
	rule: TaxPointRule;
	/** Of the rule `work` alone; null: not finished yet. */
	workFinished: PlainDate | null;
	/** The invoice; null: none yet. */
	issued: PlainDate | null;
	/** With VAT, above zero. */
	total: Minor;
	/** Money received for it, what was withheld included. */
	payments: readonly { date: PlainDate; amount: Minor }[];
	/** When the seller was registered, both ends included; null: never. */
	registered: { from: PlainDate; until: PlainDate | null } | null;
}

export interface SupplyPoint {
	date: PlainDate;
	amount: Minor;
	because: 'payment' | 'invoice' | 'work';
	/** Whether the seller was registered on that day. */
	vat: boolean;
}

/** The tax points of a supply, by date; none where nothing has happened yet. They come to at most its total. */
export function taxPoints({ registered, ...supply }: TaxPointsInput): SupplyPoint[] {
	return supplyPoints(
		supply,
		(day) =>
			registered !== null &&
			registered.from <= day &&
			(registered.until === null || day <= registered.until)
	);
}

/** As `taxPoints`, for a seller whose registration came and went more than once. */
export function supplyPoints(
	input: Omit<TaxPointsInput, 'registered'>,
	isRegistered: (day: PlainDate) => boolean
): SupplyPoint[] {
	const { total } = input;
	// Issued by someone who was not registered, it is no VAT invoice and makes no tax point.
	const invoice = input.issued !== null && isRegistered(input.issued) ? input.issued : null;
	const finished = input.rule === 'work' ? input.workFinished : null;

	const early = new Map<PlainDate, Minor>();
	let left = total;
	const inOrder = [...input.payments].sort((a, b) =>
		a.date < b.date ? -1 : a.date > b.date ? 1 : 0
	);
	for (const { date, amount } of inOrder) {
		if ((finished !== null && date >= finished) || (invoice !== null && date >= invoice)) continue;
		const part = amount < left ? amount : left;
		left -= part;
		if (part > 0n) early.set(date, (early.get(date) ?? 0n) + part);
	}
	const points = [...early].map(([date, amount]): SupplyPoint => ({
		date,
		amount,
		because: 'payment',
		vat: isRegistered(date)
	}));
	const rest = restPoint(finished, invoice, isRegistered);
	if (rest && left > 0n) points.push({ ...rest, amount: left, vat: isRegistered(rest.date) });
	return points;
}

/** When what was not paid early takes place; null: not yet. */
function restPoint(
	finished: PlainDate | null,
	invoice: PlainDate | null,
	isRegistered: (day: PlainDate) => boolean
): Pick<SupplyPoint, 'date' | 'because'> | null {
	if (finished === null) return invoice === null ? null : { date: invoice, because: 'invoice' };
	const moves =
		invoice !== null &&
		(invoice < finished ||
			// What was supplied while not registered is not drawn into the registration by its invoice.
			(invoice <= addDays(finished, DAYS_TO_INVOICE) && isRegistered(finished)));
	return moves ? { date: invoice, because: 'invoice' } : { date: finished, because: 'work' };
}
