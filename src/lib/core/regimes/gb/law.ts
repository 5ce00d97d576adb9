// What would be wrong in law, or very likely a slip: said in plain words, with the fix one press away.
import { displayDate } from '../../calendar/conversion';
import { addDays } from '../../calendar/manipulation';
import { daysBetween } from '../../calendar/queries';
import type { CustomerFacts, SellerFacts } from '../../documents/types';
import { ALLOWABLE_KINDS, type InvoiceFigures, type InvoiceInput } from '../../figures/types';
import { displayPounds } from '../../money/display';
import { isVatNumber, readVerificationNumber } from './checks';
import { reasonById, reasonsOn } from './reasons';
import type { SheetContext, SheetDates } from '../../sheet/context';
import type { Problem, Sheet, SheetLine } from '../../sheet/types';

export interface LawSubject {
	sheet: Sheet;
	context: SheetContext;
	dates: SheetDates;
	seller: SellerFacts;
	customer: CustomerFacts | null;
	lines: SheetLine[];
	input: InvoiceInput | null;
	figures: InvoiceFigures | null;
}

/** Up to this total, in pence with VAT, a simplified invoice does (VAT Regulations 1995 reg. 16). */
const SIMPLIFIED_UP_TO = 250_00n;

export function lawProblems(subject: LawSubject): Problem[] {
	return [
		...customerProblems(subject),
		...standingProblems(subject),
		...dateProblems(subject),
		...lineProblems(subject),
		...wholeProblems(subject)
	];
}

function customerProblems({ sheet, customer, figures, seller, context }: LawSubject): Problem[] {
	if (!customer) {
		const removed = sheet.customerId !== null;
		return [
			{
				path: 'customer',
				level: 'stop',
				message: removed
					? 'This customer has been removed, perhaps in another tab. Choose another, or add it again.'
					: 'Choose the customer, or add a new one.',
				fix: { label: 'Choose the customer', type: 'focus', path: 'customer' },
				...(removed ? {} : { atIssue: true as const })
			}
		];
	}
	const problems: Problem[] = [];
	const simplified =
		figures !== null &&
		figures.total <= SIMPLIFIED_UP_TO &&
		!figures.vat.some((group) => group.reverseCharge || group.treatment === 'exempt');
	if (customer.address.trim() === '' && seller.vatRegistered && !simplified) {
		problems.push({
			path: 'customer.address',
			level: 'stop',
			message: 'A VAT invoice above £250 shows the customer’s address.',
			fix: { label: 'Give the address', type: 'customer', field: 'address' },
			reference: 'VAT Regulations 1995 reg. 14(1)(e)',
			atIssue: true
		});
	}
	if (customer.orderNumberRequired && sheet.orderNumber.trim() === '') {
		problems.push({
			path: 'orderNumber',
			level: 'warning',
			message: `${customer.name} wants an order number on every invoice.`,
			fix: { label: 'Give it', type: 'focus', path: 'orderNumber' }
		});
	}
	if (seller.vatRegistered && !isVatNumber(seller.vatNumber)) {
		problems.push({
			path: 'seller.vatNumber',
			level: 'stop',
			message: 'Your VAT number is missing or has a wrong digit. A VAT invoice must show it.',
			fix: { label: 'Put it right', type: 'go', href: '/settings#vat' },
			reference: 'VAT Regulations 1995 reg. 14(1)(d)'
		});
	}
	if (context.seller.ownerName.trim() === '' || context.seller.address.trim() === '') {
		problems.push({
			path: 'seller.address',
			level: 'stop',
			message: 'Your own name and address must be on it.',
			fix: { label: 'Give them', type: 'go', href: '/settings' },
			reference: 'Companies Act 2006 s.1202',
			atIssue: true
		});
	}
	return problems;
}

function standingProblems({
	sheet,
	customer,
	seller,
	input,
	figures,
	context
}: LawSubject): Problem[] {
	if (!customer || customer.kind !== 'contractor' || context.corrects) return [];
	const { standing } = customer;
	const problems: Problem[] = [];
	const inside = sheet.contract !== 'none';
	if (sheet.contract === null) {
		problems.push({
			path: 'contract',
			level: 'stop',
			message: 'Say whether this contract contains construction work: the tax depends on it.',
			fix: {
				label: 'Yes, construction work',
				type: 'set',
				field: 'contract',
				value: 'construction'
			},
			reference: 'FA 2004 s.74'
		});
	}
	if (standing.cisRate === null && inside) {
		problems.push({
			path: 'customer.cisRate',
			level: 'warning',
			message: `${customer.name} will deduct CIS, but at which rate is not known. What they pay may differ.`,
			fix: { label: 'Give the rate', type: 'customer', field: 'cisRate' },
			reference: 'FA 2004 s.61'
		});
	}
	const verification = readVerificationNumber(standing.verificationNumber);
	if (standing.cisRate === '0' && verification?.matched === false) {
		problems.push({
			path: 'customer.cisRate',
			level: 'warning',
			message:
				'The verification number says that HMRC found no match, and that means 30 %, not 0 %.',
			fix: { label: 'Look at the tax standing', type: 'customer', field: 'cisRate' },
			reference: 'FA 2004 s.61(2)'
		});
	}
	if (seller.vatRegistered && inside && !standing.endUser) {
		const missing = !standing.vatRegistered
			? 'vatRegistered'
			: !standing.cisRegistered
				? 'cisRegistered'
				: null;
		if (
			missing &&
			standing.cisRate !== null &&
			sheet.contract === 'construction' &&
			figures?.vatCharged
		) {
			problems.push({
				path: `customer.${missing}`,
				level: 'warning',
				message:
					missing === 'vatRegistered'
						? `You are charging VAT. If ${customer.name} is VAT registered you must not: the reverse charge applies.`
						: `You are charging VAT to a VAT registered contractor that deducts CIS. If it is CIS registered you must not: the reverse charge applies.`,
				fix: {
					label:
						missing === 'vatRegistered' ? 'They are VAT registered' : 'They are CIS registered',
					type: 'customer',
					field: missing
				},
				reference: 'VATA 1994 s.55A'
			});
		}
	}
	if (
		input &&
		figures?.vat.some((group) => group.reverseCharge) &&
		!isVatNumber(standing.vatNumber)
	) {
		problems.push({
			path: 'customer.vatNumber',
			level: 'warning',
			message: standing.vatNumber
				? 'A digit of the customer’s VAT number is wrong.'
				: 'Under the reverse charge, keep the customer’s VAT number as evidence.',
			fix: { label: 'Give the VAT number', type: 'customer', field: 'vatNumber' },
			reference: 'VAT Notice 735 para 3'
		});
	}
	if (standing.endUser && !standing.endUserDate) {
		problems.push({
			path: 'customer.endUserDate',
			level: 'warning',
			message: 'An end user has to say so in writing. Note the day of that statement.',
			fix: { label: 'Give the day', type: 'customer', field: 'endUserDate' },
			reference: 'SI 2019/892 art. 8'
		});
	}
	return problems;
}

function dateProblems({ dates, context, seller, sheet }: LawSubject): Problem[] {
	const { issueDate, workFinished, taxPoint } = dates;
	if (context.corrects) return [];
	const problems: Problem[] = [];
	if (taxPoint.basis === 'workFinished' && seller.vatRegistered) {
		problems.push({
			path: 'workFinished',
			level: 'note',
			message: `Issued more than 14 days after the work ended, so its VAT belongs to the period of ${displayDate(workFinished)}.`,
			reference: taxPoint.reference
		});
		if (issueDate > addDays(workFinished, 30)) {
			problems.push({
				path: 'issueDate',
				level: 'note',
				message: 'A VAT registered customer should have had this invoice within 30 days.',
				reference: 'VAT Regulations 1995 reg. 13(5)'
			});
		}
	}
	if (taxPoint.basis === 'invoiceFirst') {
		problems.push({
			path: 'workFinished',
			level: 'warning',
			message: `The work is not finished until ${displayDate(workFinished)}. Invoicing now makes the VAT due now.`,
			fix: {
				label: 'It is finished on the invoice date',
				type: 'set',
				field: 'workFinished',
				value: ''
			},
			reference: taxPoint.reference
		});
	}
	if (issueDate > context.today) {
		problems.push({
			path: 'issueDate',
			level: 'stop',
			message: 'An invoice cannot carry a date that has not come yet.',
			fix: { label: 'Date it on the day it is issued', type: 'set', field: 'issueDate', value: '' }
		});
	} else if (sheet.issueDate.trim() !== '' && daysBetween(issueDate, context.today) > 0) {
		problems.push({
			path: 'issueDate',
			level: 'warning',
			message: `This invoice is dated ${displayDate(issueDate)}, and today is ${displayDate(context.today)}.`,
			fix: { label: 'Date it today', type: 'set', field: 'issueDate', value: '' }
		});
	}
	return problems;
}

function lineProblems({ lines, seller, input, figures, dates, customer }: LawSubject): Problem[] {
	const problems: Problem[] = [];
	if (lines.length === 0) {
		problems.push({
			path: 'rows',
			level: 'stop',
			message: 'There is nothing on it yet: give at least one line.',
			fix: { label: 'Begin', type: 'focus', path: 'rows' },
			atIssue: true
		});
	}
	for (const [index, line] of lines.entries()) {
		const path = `rows.${line.id}`;
		if (line.description.trim() === '') {
			problems.push({
				path: `${path}.description`,
				level: 'stop',
				message: 'Say what this line is for.',
				fix: { label: 'Say it', type: 'focus', path: `${path}.description` },
				reference: 'VAT Regulations 1995 reg. 14(1)(h)',
				atIssue: true
			});
		}
		if (seller.vatRegistered && line.vat !== 'standard') {
			const reason = reasonById(line.vatReason);
			const current = reasonsOn(dates.taxPoint.date);
			if (!reason || reason.treatment !== line.vat) {
				problems.push({
					path: `${path}.vat`,
					level: 'stop',
					message: 'A rate other than the standard one needs its reason, which is printed.',
					fix: { label: 'Choose the reason', type: 'focus', path: `${path}.vat` },
					reference: 'VAT Regulations 1995 reg. 14(1)'
				});
			} else if (!current.includes(reason)) {
				problems.push({
					path: `${path}.vat`,
					level: 'stop',
					message: `“${reason.label}” is not in force on ${displayDate(dates.taxPoint.date)}.`,
					fix: {
						label: 'Charge the standard rate',
						type: 'setLine',
						rowId: line.id,
						field: 'vat',
						value: 'standard'
					},
					reference: reason.reference
				});
			}
		}
		const inCis = figures?.cis && Number(figures.cis.rate) > 0;
		const noCost = input?.lines[index]?.cost === null && line.vat !== 'noSupply';
		if (inCis && noCost && line.cost.trim() === '' && ALLOWABLE_KINDS.has(line.kind)) {
			problems.push({
				path: `${path}.cost`,
				level: 'warning',
				message: `The law wants what this cost you. Its price is taken for now, so ${customer?.name ?? 'the contractor'} may deduct more.`,
				fix: { label: 'Give the cost', type: 'focus', path: `${path}.cost` },
				reference: 'FA 2004 s.61(1)(a)'
			});
		}
	}
	return problems;
}

function wholeProblems({ sheet, customer, figures }: LawSubject): Problem[] {
	const problems: Problem[] = [];
	if (sheet.retention.trim() !== '' && customer?.kind === 'household') {
		problems.push({
			path: 'retention',
			level: 'warning',
			message:
				'A retention on a household’s bill is unusual: nothing in law lets a household hold money back for later.',
			fix: { label: 'Hold nothing back', type: 'set', field: 'retention', value: '' }
		});
	}
	if (figures && figures.payable <= 0n) {
		problems.push({
			path: 'total',
			level: 'stop',
			message: `This comes to ${displayPounds(figures.payable)}. An invoice asks for money; to give some back, credit the invoice it was on.`,
			atIssue: true
		});
	}
	return problems;
}
