// A document as its reader sees it: every text and amount ready, for the page and the PDF alike.
import { displayDate } from '../calendar/conversion';
import type { InvoiceFigures } from '../figures/types';
import { shows, STANDARD_LOOK, type Detail, type Look } from '../letterheads/look';
import { BOOKS, signOf } from '../money/currencies';
import { formatDecimal } from '../money/decimal';
import { displayAmount } from '../money/display';
import { formatVatNumber } from '../regimes/gb/checks';
import { sheetLines } from '../sheet/blank';
import { waysOf } from '../sheet/own';
import { taxPointRuleOf } from '../sheet/taxPoint';
import { TREATMENT_NAMES, withinSentence } from '../words';
import { accountFor } from './account';
import { frozenFigures } from './frozen';
import type { Frozen } from './types';
import { viewColumns, viewRows, viewSections } from './viewLines';
import { sortOf, statementsOf, taxPointFacts, termsOf, titleOf, totalsOf } from './viewTexts';
import {
	isNumbered,
	type FactId,
	type ViewFact,
	type DocumentView,
	type Marking
} from './viewTypes';

/** An issued document as it reads, from what was frozen. */
export function frozenView(frozen: Frozen, number: string, marking: Marking): DocumentView {
	return viewDocument(frozen, frozenFigures(frozen), number, marking);
}

export function viewDocument(
	frozen: Frozen,
	figures: InvoiceFigures,
	number: string,
	marking: Marking
): DocumentView {
	const { seller, customer, sheet, look = STANDARD_LOOK } = frozen;
	const lines = sheetLines(sheet);
	const includes = seller.vatRegistered && sheet.pricesIncludeVat;
	const credit = frozen.kind === 'creditNote';
	const own = look.words[sortOf(frozen)];
	const cis = figures.cis;
	const contact = sheet.own?.contact?.trim();
	const ways = waysOf(sheet, customer);
	const abroad = (sheet.currency ?? BOOKS) !== BOOKS;
	const account = accountFor(seller.bank, abroad);
	const attention = contact ? [`For the attention of ${contact}`] : [];
	return {
		sign: signOf(sheet.currency),
		title: own?.title.trim() || titleOf(frozen),
		banner: bannerOf(marking, frozen),
		number: isNumbered(marking) ? number : '',
		look,
		seller: { name: seller.tradingName || seller.ownerName, lines: sellerLines(frozen, look) },
		customer: [
			customer.name,
			...(customer.billTo ? [] : attention),
			...splitLines(customer.address)
		],
		billTo: customer.billTo
			? [
					`${customer.name}`,
					`c/o ${customer.billTo.name}`,
					...attention,
					...splitLines(customer.billTo.address)
				]
			: [],
		site: shows(look, 'site') ? siteLines(frozen) : [],
		facts: factsOf(frozen, marking).filter(({ id }) => shown(look, id)),
		columns: viewColumns(frozen, figures),
		above: [own?.above, look.above].map((words) => words?.trim() ?? '').filter(Boolean),
		sections: viewSections(frozen, viewRows(frozen, figures), figures),
		totals: totalsOf(figures, includes, seller.vatRegistered),
		vatTable: seller.vatRegistered
			? figures.vat.map((group) => ({
					rate: group.rate
						? `${formatDecimal(group.rate)} %${group.reverseCharge ? ' reverse charge' : ''}`
						: withinSentence(TREATMENT_NAMES[group.treatment]),
					net: displayAmount(group.net),
					vat: displayAmount(group.vat)
				}))
			: [],
		deduction: cis
			? [
					{ label: 'Amount without VAT and levy', amount: displayAmount(cis.gross) },
					{
						label: `less materials, ${cis.assumed ? 'at price' : 'at cost'}`,
						amount: displayAmount(-cis.materials)
					},
					{ label: 'Labour and all else, liable to deduction', amount: displayAmount(cis.base) },
					{
						label: `CIS deduction at ${cis.rate} %`,
						amount: displayAmount(-cis.deduction),
						strong: true
					}
				]
			: [],
		payable: {
			label: credit ? 'Credited to you' : cis ? 'To pay after deduction' : 'To pay',
			amount: displayAmount(figures.payable)
		},
		statements: statementsOf(frozen, figures, lines),
		terms: termsOf(frozen, marking),
		note: sheet.note.trim(),
		below: [own?.below, look.below, look.conditions]
			.map((words) => words?.trim() ?? '')
			.filter(Boolean),
		payTitle: look.payTitle.trim() || 'How to pay',
		payWords: credit || sheet.selfBilled ? '' : look.payWords.trim(),
		bank:
			!credit &&
			!sheet.selfBilled &&
			ways.transfer &&
			(account.accountNumber || account.iban) &&
			shows(look, 'bank')
				? { ...account, reference: isNumbered(marking) ? number : 'the invoice number' }
				: null,
		online:
			credit || sheet.selfBilled
				? ''
				: [ways.card ? 'by card' : '', ways.bank ? 'from your bank' : '']
						.filter(Boolean)
						.join(' or '),
		due: credit ? '' : displayDate(frozen.dueDate)
	};
}

function bannerOf(marking: Marking, { kind, seller, customer, sheet }: Frozen): string {
	if (sheet.opening && kind === 'invoice')
		return 'Our record of an invoice you have already: it takes the place of none';
	if (sheet.selfBilled && marking !== 'trial')
		return `Our record of what ${customer.name} wrote: not a VAT invoice of ours`;
	if (marking === 'draft')
		return seller.vatRegistered ? 'Draft: this is not a VAT invoice' : 'Draft: not an invoice yet';
	if (marking === 'copy') return 'Copy of a document sent before';
	if (marking === 'trial') return 'Test: nothing here counts, and nothing is owed';
	return '';
}

export function sellerLines({ seller }: Pick<Frozen, 'seller'>, look: Look): string[] {
	const wish = (detail: Detail, words: string) => (shows(look, detail) ? words.trim() : '');
	return [
		...(seller.tradingName ? [seller.ownerName] : []),
		...splitLines(seller.address),
		wish('phone', seller.phone),
		wish('email', seller.email),
		seller.vatRegistered ? `VAT number ${formatVatNumber(seller.vatNumber)}` : '',
		wish('tradeBody', look.tradeBody),
		wish('insurance', look.insurance)
	].filter(Boolean);
}

/** The facts that a letterhead may leave out; all others are asked for by law. */
const OPTIONAL: Partial<Record<FactId, Detail>> = {
	workFinished: 'workFinished',
	due: 'due',
	order: 'order',
	reference: 'reference',
	vatNumber: 'customerVat',
	utr: 'utr',
	verification: 'verification'
};

function shown(look: Look, fact: FactId): boolean {
	const detail = OPTIONAL[fact];
	return detail === undefined || shows(look, detail);
}

function siteLines({ customer, sheet }: Frozen): string[] {
	const site = customer.sites.find((one) => one.id === sheet.siteId);
	return site ? [site.name, ...splitLines(site.address)] : [];
}

function factsOf(frozen: Frozen, marking: Marking): DocumentView['facts'] {
	const { sheet, seller, corrects, about } = frozen;
	const credit = frozen.kind === 'creditNote';
	const facts: ViewFact[] = [
		{
			id: 'issued',
			label: credit ? 'Date' : 'Invoice date',
			value:
				marking === 'draft' && !sheet.issueDate
					? 'on the day it is issued'
					: displayDate(frozen.issueDate)
		},
		...taxPointFacts(frozen),
		...(!credit && taxPointRuleOf(sheet) === 'work' && frozen.workFinished !== frozen.issueDate
			? [
					{
						id: 'workFinished' as const,
						label: 'Work finished',
						value: displayDate(frozen.workFinished)
					}
				]
			: []),
		...(credit ? [] : [{ id: 'due' as const, label: 'Due', value: displayDate(frozen.dueDate) }]),
		...(corrects
			? [
					{
						id: 'corrects' as const,
						label: 'Corrects invoice',
						value: `${corrects.number} of ${displayDate(corrects.issueDate)}`
					},
					{ id: 'reason' as const, label: 'Reason', value: corrects.reason }
				]
			: []),
		...(about
			? [
					{
						id: 'corrects' as const,
						label: about.as === 'debit' ? 'In addition to' : 'In place of',
						value: `${about.number} of ${displayDate(about.issueDate)}`
					},
					...(about.as === 'debit'
						? [{ id: 'reason' as const, label: 'Reason', value: about.reason }]
						: [])
				]
			: []),
		...(sheet.orderNumber.trim()
			? [{ id: 'order' as const, label: 'Your order', value: sheet.orderNumber.trim() }]
			: []),
		...(sheet.reference.trim()
			? [{ id: 'reference' as const, label: 'Reference', value: sheet.reference.trim() }]
			: [])
	];
	const { standing } = frozen.customer;
	if (standing.vatNumber && seller.vatRegistered)
		facts.push({
			id: 'vatNumber',
			label: 'Your VAT number',
			value: formatVatNumber(standing.vatNumber)
		});
	if (frozen.customer.kind === 'contractor' && seller.utr)
		facts.push({ id: 'utr', label: 'Our UTR', value: seller.utr });
	if (frozen.customer.kind === 'contractor' && standing.verificationNumber)
		facts.push({
			id: 'verification',
			label: 'CIS verification',
			value: standing.verificationNumber
		});
	return facts;
}

/** The lines of an address. */
export function splitLines(text: string): string[] {
	return text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean);
}
