// A document as its reader sees it: every text and amount ready, for the page and the PDF alike.
import { displayDate } from '../calendar/conversion';
import { LINE_KINDS, type InvoiceFigures } from '../figures/types';
import { formatDecimal } from '../money/decimal';
import { displayAmount } from '../money/display';
import { readTypedNumber } from '../money/typed';
import { formatVatNumber } from '../regimes/gb/checks';
import { isBlank, sheetLines } from '../sheet/blank';
import { waysOf } from '../sheet/own';
import { lineTaxPoint, taxPointRuleOf } from '../sheet/taxPoint';
import type { SheetLine } from '../sheet/types';
import { KIND_NAMES, TREATMENT_NAMES, withinSentence } from '../words';
import { frozenFigures } from './frozen';
import type { Frozen } from './types';
import { statementsOf, taxPointFacts, termsOf, titleOf, totalsOf } from './viewTexts';
import {
	type ViewRow,
	type ViewSection,
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
	const { seller, customer, sheet } = frozen;
	const lines = sheetLines(sheet);
	const includes = seller.vatRegistered && sheet.pricesIncludeVat;
	const credit = frozen.kind === 'creditNote';
	const rates = new Map(figures.vat.map((group) => [group.treatment, group]));
	const rows = lines.map((line, index): ViewRow => {
		const group = rates.get(line.vat);
		const rate = group?.rate
			? `${formatDecimal(group.rate)} %`
			: withinSentence(TREATMENT_NAMES[line.vat]);
		return {
			description: [line.description.trim(), ownTaxPoint(line, frozen)].filter(Boolean).join('\n'),
			quantity: tidy(line.quantity),
			unit: line.unit.trim(),
			unitPrice: displayPrice(line.unitPrice),
			vat: seller.vatRegistered ? (group?.reverseCharge ? `${rate} r.c.` : rate) : '',
			discount: figures.lines[index]!.lineDiscount
				? displayAmount(-figures.lines[index]!.lineDiscount)
				: '',
			withoutVat: displayAmount(figures.lines[index]!.withoutVat),
			amount: displayAmount(figures.lines[index]!.net),
			minor: figures.lines[index]!.net
		};
	});
	const cis = figures.cis;
	const contact = sheet.own?.contact?.trim();
	const ways = waysOf(sheet, customer);
	const attention = contact ? [`For the attention of ${contact}`] : [];
	return {
		title: titleOf(frozen),
		banner: bannerOf(marking, frozen),
		number: marking === 'issued' ? number : '',
		seller: { name: seller.tradingName || seller.ownerName, lines: sellerLines(frozen) },
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
		site: siteLines(frozen),
		facts: factsOf(frozen, marking),
		columns: {
			vat: seller.vatRegistered,
			discount: figures.lines.some((line) => line.lineDiscount !== 0n),
			withoutVat: includes
		},
		amountHeading: includes ? 'Amount incl. VAT, £' : 'Amount, £',
		sections: sectionsOf(frozen, lines, rows, figures),
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
		bank:
			!credit && !sheet.selfBilled && ways.transfer && seller.bank.accountNumber
				? { ...seller.bank, reference: marking === 'issued' ? number : 'the invoice number' }
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

function bannerOf(marking: Marking, { seller, customer, sheet }: Frozen): string {
	if (sheet.selfBilled && marking !== 'trial')
		return `Our record of what ${customer.name} wrote: not a VAT invoice of ours`;
	if (marking === 'draft')
		return seller.vatRegistered ? 'Draft: this is not a VAT invoice' : 'Draft: not an invoice yet';
	if (marking === 'trial') return 'Test: nothing here counts, and nothing is owed';
	return '';
}

function sellerLines({ seller }: Frozen): string[] {
	return [
		...(seller.tradingName ? [seller.ownerName] : []),
		...splitLines(seller.address),
		seller.phone,
		seller.email,
		seller.vatRegistered ? `VAT number ${formatVatNumber(seller.vatNumber)}` : ''
	].filter(Boolean);
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

function sectionsOf(
	frozen: Frozen,
	lines: SheetLine[],
	rows: ViewRow[],
	figures: InvoiceFigures
): ViewSection[] {
	const { sheet } = frozen;
	const groups: { heading: string; members: number[]; single?: boolean }[] = [];
	if (sheet.grouping === 'kinds') {
		for (const kind of LINE_KINDS) {
			const members = lines.flatMap((line, index) => (line.kind === kind ? [index] : []));
			if (members.length) groups.push({ heading: KIND_NAMES[kind], members });
		}
	} else {
		let index = 0;
		let current: (typeof groups)[number] = { heading: '', members: [] };
		groups.push(current);
		for (const row of sheet.rows) {
			if (row.type === 'heading') {
				current = { heading: row.text.trim(), members: [], single: row.single ?? false };
				groups.push(current);
			} else if (!isBlank(row)) current.members.push(index++);
		}
	}
	const filled = groups.filter((group) => group.members.length > 0);
	return filled.map(({ heading, members, single }) => ({
		heading: single ? '' : heading,
		rows: single
			? [asOneRow(heading, members, rows, figures)]
			: members.map((index) => rows[index]!),
		sum:
			filled.length > 1 && heading && !single
				? displayAmount(members.reduce((sum, index) => sum + figures.lines[index]!.net, 0n))
				: ''
	}));
}

/** Lines of one rate under a heading that stands for all of them. */
function asOneRow(
	heading: string,
	members: number[],
	rows: ViewRow[],
	figures: InvoiceFigures
): ViewRow {
	const sum = (read: (line: InvoiceFigures['lines'][number]) => bigint) =>
		members.reduce((total, index) => total + read(figures.lines[index]!), 0n);
	const discount = sum((line) => line.lineDiscount);
	return {
		description: heading,
		quantity: '1',
		unit: '',
		unitPrice: displayAmount(sum((line) => line.extension)),
		vat: [...new Set(members.map((index) => rows[index]!.vat))].join(', '),
		discount: discount ? displayAmount(-discount) : '',
		withoutVat: displayAmount(sum((line) => line.withoutVat)),
		amount: displayAmount(sum((line) => line.net)),
		minor: sum((line) => line.net)
	};
}

function splitLines(text: string): string[] {
	return text
		.split('\n')
		.map((line) => line.trim())
		.filter(Boolean);
}

function tidy(typed: string): string {
	const read = readTypedNumber(typed, { decimals: 4, negative: true });
	return read.ok ? read.text.replace('-', '\u2212') : typed.trim();
}

/** A unit price keeps the decimals it needs: two, or up to four where it has them. */
function displayPrice(typed: string): string {
	const read = readTypedNumber(typed, { decimals: 4 });
	if (!read.ok) return typed.trim();
	const [whole = '0', decimals = ''] = read.text.split('.');
	return `${whole.replace(/\B(?=(\d{3})+$)/g, ',')}.${decimals.padEnd(2, '0')}`;
}

/** A line whose work ended on a day of its own says when it was supplied (VAT Regulations 1995 reg. 14(1)(b)). */
function ownTaxPoint(line: SheetLine, frozen: Frozen): string {
	const date = lineTaxPoint(line, frozen);
	return frozen.seller.vatRegistered && date !== null && date !== frozen.taxPoint
		? `Tax point ${displayDate(date)}`
		: '';
}
