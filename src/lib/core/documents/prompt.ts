// A discount for paying in time: VAT is due on what is paid, so a credit note follows when it is taken (VATA 1994 Sch. 6
// para 4; docs/tax-gb.md 8).
import { addDays } from '../calendar/manipulation';
import type { PlainDate } from '../calendar/types';
import type { InvoiceFigures } from '../figures/types';
import { percentOf } from '../money/decimal';
import type { Decimal, Minor } from '../money/types';
import { FieldError } from '../refusals';
import { amountOff, type CreditWish, type LeftLine } from '../sheet/credit';
import { readPrompt } from '../sheet/prompt';
import { freezeCredit, leftAfter, type LeftOfInvoice } from './credit';
import type { Frozen } from './types';

export interface PromptOffer {
	percent: Decimal;
	/** The last day on which paying counts as in time. */
	until: PlainDate;
	/** What is to pay by then. */
	payable: Minor;
	/** What the credit note comes to, VAT included. */
	off: Minor;
}

/** The parts of its lines that the discount takes off. */
export const promptWishes =
	(percent: Decimal) =>
	(lines: readonly LeftLine[]): CreditWish[] =>
		amountOff(
			lines,
			percentOf(
				lines.reduce((sum, { taxable }) => sum + taxable, 0n),
				percent
			)
		);

/** What an invoice offers for paying in time; null where it offers nothing, or too little to be a penny. */
export function promptOffer(frozen: Frozen, known?: LeftOfInvoice): PromptOffer | null {
	const terms = frozen.kind === 'invoice' ? readPrompt(frozen.sheet) : null;
	// Most offer nothing: what is left of them is worked out for those that do.
	if (!terms) return null;
	const left = known ?? leftAfter('', frozen, []);
	if (left.nothing) return null;
	let credit: InvoiceFigures;
	try {
		credit = freezeCredit(
			left,
			{ wishes: promptWishes(terms.percent), again: false },
			'',
			frozen.issueDate
		).figures;
	} catch (problem) {
		if (problem instanceof FieldError) return null;
		throw problem;
	}
	return {
		percent: terms.percent,
		until: addDays(frozen.issueDate, terms.days),
		payable:
			left.notes.reduce((sum, note) => sum - note.payable, left.figures.payable) - credit.payable,
		off: credit.total
	};
}
