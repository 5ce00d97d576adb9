// What a document says below its lines: totals, the sentences the law wants, terms.
import { displayDate } from '../calendar/conversion';
import { describeTerms } from '../calendar/terms';
import { type InvoiceFigures } from '../figures/types';
import type { DocumentSort } from '../letterheads/look';
import { formatDecimal } from '../money/decimal';
import { BOOKS, CURRENCY_NAMES } from '../money/currencies';
import { displayAmount, displayMoney, displayPounds } from '../money/display';
import { reasonById } from '../regimes/gb/reasons';
import type { SheetLine } from '../sheet/types';
import { promptOffer } from './prompt';
import type { Frozen } from './types';
import { type ViewAmount, type ViewFact, REVERSE_CHARGE_WORDING, type Marking } from './viewTypes';

export function totalsOf(
	figures: InvoiceFigures,
	includes: boolean,
	registered: boolean
): ViewAmount[] {
	const totals: ViewAmount[] = [];
	const add = (label: string, amount: bigint, strong?: boolean) =>
		totals.push({ label, amount: displayAmount(amount), ...(strong ? { strong } : {}) });
	if (figures.discount || figures.retention) {
		add(includes ? 'Sum of the lines, including VAT' : 'Sum of the lines', figures.linesTotal);
		if (figures.discount) add('Discount', -figures.discount);
		if (figures.retention) add('Retention, invoiced when it is released', -figures.retention);
	}
	if (registered) {
		add('Total without VAT', figures.net);
		for (const group of figures.vat) {
			if (group.rate && !group.reverseCharge)
				add(`VAT at ${formatDecimal(group.rate)} %`, group.vat);
		}
		if (figures.vat.every((group) => group.reverseCharge || !group.rate))
			add('VAT charged', figures.vatCharged);
		// The tax office has its VAT in pounds, and so does who claims it back (VAT Regulations 1995 reg. 14(1)(i)).
		if (figures.sterling && figures.vatCharged)
			totals.push({
				label: 'VAT charged, in pounds',
				amount: displayPounds(figures.sterling.vatCharged)
			});
	}
	add('Total', figures.total, true);
	return totals;
}

export function statementsOf(
	frozen: Frozen,
	figures: InvoiceFigures,
	lines: SheetLine[]
): string[] {
	const statements: string[] = [];
	const { currency = BOOKS } = frozen.sheet;
	const offer = promptOffer(frozen);
	if (offer)
		statements.push(
			`A discount of ${formatDecimal(offer.percent)} % of the full price applies if payment is made by ${displayDate(offer.until)}: ${displayMoney(offer.payable, currency)} is then to pay. A credit note for ${displayMoney(offer.off, currency)}${figures.vatCharged ? ', its VAT included,' : ''} follows.`
		);
	const notHeld = (frozen.corrects?.parts ?? []).reduce((sum, part) => sum + part.retention, 0);
	if (notHeld > 0)
		statements.push(
			`Of the retention on ${frozen.corrects!.number}, ${displayMoney(notHeld, currency)} is not held any more, and will not be invoiced.`
		);
	const reversed = figures.vat.filter((group) => group.reverseCharge);
	if (reversed.length) {
		const amounts = reversed.map(
			(group) => `${displayMoney(group.vat, currency)} at ${formatDecimal(group.rate!)} %`
		);
		statements.push(`${REVERSE_CHARGE_WORDING}: ${amounts.join(' and ')}.`);
	}
	const { exchange } = frozen;
	if (frozen.seller.vatRegistered && exchange)
		statements.push(
			`In pounds, at £${exchange.rate} for one ${CURRENCY_NAMES[currency].one} (${exchange.source}): ${displayPounds(exchange.net)} without VAT, VAT ${displayPounds(exchange.vatCharged)}${exchange.vatReverseCharged ? `, VAT you account for ${displayPounds(exchange.vatReverseCharged)}` : ''}.`
		);
	if (frozen.seller.vatRegistered) {
		const used = new Set(
			lines.filter((line) => line.vat !== 'standard').map((line) => line.vatReason)
		);
		for (const id of used) {
			const sentence = reasonById(id)?.sentence;
			if (sentence) statements.push(sentence);
		}
	}
	return statements;
}

export function termsOf(frozen: Frozen, marking: Marking): string {
	if (frozen.kind !== 'invoice' || marking === 'draft') return '';
	return `Terms: ${describeTermsOf(frozen)}. Due ${displayDate(frozen.dueDate)}.`;
}

function describeTermsOf(frozen: Frozen): string {
	const typed = frozen.sheet.termsDays.trim();
	const terms = typed
		? { days: Number(typed), endOfMonth: false }
		: (frozen.customer.terms ?? frozen.seller.terms);
	return frozen.sheet.dueDate.trim() ? 'as agreed' : describeTerms(terms);
}

/** The day of the supply where it is not that of the paper; where a part was paid before, each day with its amount. */
export function taxPointFacts({ seller, taxPoint, issueDate, taxPoints = [] }: Frozen): ViewFact[] {
	if (!seller.vatRegistered) return [];
	const label = 'Tax point';
	const early = taxPoints.filter(({ because }) => because === 'payment');
	if (early.length > 0 && taxPoints.length > 1)
		return [
			{
				id: 'taxPoint',
				label,
				value: taxPoints
					.map(
						({ date, net, vatCharged }) =>
							`${displayDate(date)} for ${displayPounds(net + vatCharged)}`
					)
					.join(', ')
			}
		];
	const [date = taxPoint] = early.map((one) => one.date);
	return date === issueDate ? [] : [{ id: 'taxPoint', label, value: displayDate(date) }];
}

/** Which of the kinds of document that have words of their own it is. */
export function sortOf({ kind, sheet }: Pick<Frozen, 'kind' | 'sheet'>): DocumentSort {
	if (kind === 'creditNote') return 'creditNote';
	if (sheet.quote) return 'quote';
	if (sheet.charge === 'late') return 'late';
	if (sheet.selfBilled) return 'selfBilled';
	if (sheet.about?.as === 'debit') return 'debit';
	return sheet.deposit ? 'deposit' : 'invoice';
}

/** What kind of document it is, in the words the law wants; a charge for lateness is no VAT invoice. */
export function titleOf(frozen: Pick<Frozen, 'kind' | 'sheet' | 'seller'>): string {
	// The invoice itself was issued elsewhere, and there is one of it.
	if (frozen.kind === 'invoice' && frozen.sheet.opening) return 'Record of an invoice';
	const invoice = frozen.seller.vatRegistered ? 'VAT invoice' : 'Invoice';
	const titles: Record<DocumentSort, string> = {
		creditNote: 'Credit note',
		late: 'Late payment charge',
		selfBilled: 'Self-billed invoice',
		debit: 'Debit note',
		deposit: `${invoice} for a deposit`,
		invoice,
		application: 'Application for payment',
		quote: 'Quote',
		jobSheet: 'Job sheet'
	};
	return titles[sortOf(frozen)];
}
