// What is wrong, or very likely a slip, about the customer and its standing.
import { customerOn } from '../../parties';
import { isVatNumber, readVerificationNumber } from './checks';
import type { Problem } from '../../sheet/types';
import { type LawSubject, SIMPLIFIED_UP_TO } from './lawSubject';

export function customerProblems({ sheet, customer, figures, seller }: LawSubject): Problem[] {
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
	return problems;
}

/** What the owner's own details lack. Asked for where it is missing, the first time a document needs it. */
export function sellerProblems({ sheet, customer, seller, context }: LawSubject): Problem[] {
	if (!customer) return [];
	const problems: Problem[] = [];
	if (seller.vatRegistered && !isVatNumber(seller.vatNumber)) {
		problems.push({
			path: 'seller.vatNumber',
			level: 'stop',
			message: seller.vatNumber
				? 'Your VAT number has a wrong digit. A VAT invoice must show it.'
				: 'A VAT invoice must show your VAT number.',
			fix: { label: 'Give your VAT number', type: 'business', asks: 'vatNumber' },
			reference: 'VAT Regulations 1995 reg. 14(1)(d)',
			...(seller.vatNumber ? {} : { atIssue: true as const })
		});
	}
	if (context.seller.ownerName.trim() === '' || context.seller.address.trim() === '') {
		problems.push({
			path: 'seller.address',
			level: 'stop',
			message: 'Your own name and address must be on it.',
			fix: { label: 'Give them', type: 'business', asks: 'names' },
			reference: 'Companies Act 2006 s.1202',
			atIssue: true
		});
	}
	if (sheet.selfBilled) return problems;
	if (seller.cisSubcontractor && customer.kind === 'contractor' && !seller.utr) {
		problems.push({
			path: 'seller.utr',
			level: 'warning',
			message: 'Contractors need your UTR to verify you. Without it they deduct 30 %.',
			fix: { label: 'Give your UTR', type: 'business', asks: 'utr' },
			reference: 'FA 2004 s.69',
			atIssue: true
		});
	}
	if (!seller.bank.sortCode || !seller.bank.accountNumber) {
		problems.push({
			path: 'seller.bank',
			level: 'warning',
			message: 'It says no bank account, so nobody can pay it by transfer.',
			fix: { label: 'Give your bank details', type: 'business', asks: 'bank' },
			atIssue: true
		});
	}
	return problems;
}

export function standingProblems({
	sheet,
	customer,
	seller,
	input,
	figures,
	lines,
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
	if (
		sheet.contract !== null &&
		sheet.contract !== 'construction' &&
		context.follows?.reverseCharge === undefined &&
		seller.vatRegistered &&
		standing.vatRegistered &&
		standing.cisRegistered &&
		!standing.endUser &&
		!sheet.contractReason?.trim() &&
		lines.some((line) => line.kind === 'labour')
	) {
		problems.push({
			path: 'contractReason',
			level: 'stop',
			message: `You would charge ${customer.name} VAT for labour, although it is registered for VAT and CIS. Say why ${sheet.contract === 'none' ? 'this is no construction work' : 'construction work is at most 5 % of it'}.`,
			fix: { label: 'Say why', type: 'focus', path: 'contractReason' },
			reference: 'VATA 1994 s.55A; VAT Notice 735 para 2',
			atIssue: true
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
			!(missing === 'vatRegistered' && standing.cisRate === null) &&
			sheet.contract === 'construction' &&
			figures?.vatCharged
		) {
			problems.push({
				path: `customer.${missing}`,
				level: 'warning',
				message:
					missing === 'vatRegistered'
						? `You are charging VAT. If ${customer.name} is VAT registered you must not: the reverse charge applies.`
						: `You are charging VAT to a VAT registered contractor. If it is CIS registered, as whoever deducts CIS is, you must not: the reverse charge applies.`,
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
	const ticked = context.customer && customerOn(context.customer, input?.date ?? context.today);
	if (!standing.endUser && (sheet.endUser || ticked?.standing.endUser)) {
		const missing = sheet.endUser
			? sheet.endUser.statement.trim() === ''
				? 'endUser.statement'
				: 'endUser.date'
			: ticked!.standing.endUserStatement.trim() === ''
				? 'endUserStatement'
				: 'endUserDate';
		problems.push({
			path: sheet.endUser ? missing : `customer.${missing}`,
			level: 'warning',
			message: `${customer.name} is ticked as an end user, and ${missing.endsWith('tatement') ? 'nothing says what it wrote' : 'the day of what it wrote is missing'}. Without both the reverse charge applies.`,
			fix: sheet.endUser
				? { label: 'Note it', type: 'focus', path: missing }
				: { label: 'Note it', type: 'customer', field: missing },
			reference: 'SI 2019/892 art. 8'
		});
	}
	return problems;
}
