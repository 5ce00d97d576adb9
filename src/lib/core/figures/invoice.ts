// From lines to the amount to pay: the steps of an invoice, in order, each with its workings.
import { BOOKS } from '../money/currencies';
import { max } from '../money/decimal';
import type { Regime } from '../regimes/types';
import { deductionFigures } from './deduction';
import { keepDeductionWithin, keepVatWithin } from './left';
import { FiguresError, type InvoiceFigures, type InvoiceInput, type Left } from './types';
import { inSterling } from './sterling';
import { keepStatedVat, takeVatOffLines, vatGroups } from './vat';
import { money, WorkingsBook } from './workings';
import { lineFigures, documentDiscount, documentRetention, shareOver } from './steps';

/**
 * Computes an invoice, or what a credit note credits, exactly. Amounts are minor units.
 * @param left what is left of the invoice of which a part is credited
 * @throws FiguresError naming the field where the input contradicts itself or the law.
 */
export function computeInvoice(input: InvoiceInput, regime: Regime, left?: Left): InvoiceFigures {
	refuseContradictions(input);
	const book = new WorkingsBook();
	const registered = input.seller.vatRegistered;
	const lines = input.lines.map((line, index) => lineFigures(line, index, book));
	const linesTotal = book.sum(
		'linesTotal',
		'Sum of the lines',
		lines.map((line, index) => money(`Line ${index + 1}`, line.net, `lines.${index}.net`))
	);

	// Levy and what is no supply are passed on exactly: they take no part in discount and retention.
	const sharing = input.lines.map((line) => line.kind !== 'levy' && line.vat !== 'noSupply');
	const basis = lines.reduce((sum, line, index) => (sharing[index] ? sum + line.net : sum), 0n);
	const basisOperands = lines.flatMap((line, index) =>
		sharing[index] ? [money(`Line ${index + 1}`, line.net, `lines.${index}.net`)] : []
	);
	const discount = documentDiscount(input, basis, basisOperands, book);
	shareOver(lines, sharing, 'documentDiscount', discount, (line) => max(line.net, 0n), book);
	const retention = documentRetention(input, basis, discount, basisOperands, book);
	shareOver(
		lines,
		sharing,
		'retention',
		retention,
		(line) => max(line.net - line.documentDiscount, 0n),
		book
	);
	for (const [index, line] of lines.entries()) {
		line.taxable = line.net - line.documentDiscount - line.retention;
		const operands = [money('Net of the line', line.net, `lines.${index}.net`)];
		if (line.documentDiscount !== 0n) {
			operands.push(
				money(
					'less its share of the discount',
					line.documentDiscount,
					`lines.${index}.documentDiscount`,
					-1
				)
			);
		}
		if (line.retention !== 0n) {
			operands.push(
				money('less its share of what is held back', line.retention, `lines.${index}.retention`, -1)
			);
		}
		book.set(
			`lines.${index}.taxable`,
			`Line ${index + 1}, taxed now`,
			line.taxable,
			'sum',
			operands,
			'sum'
		);
	}

	const parties = {
		date: input.date,
		sellerVatRegistered: registered,
		customer: input.customer,
		contract: input.contract,
		cisRate: input.cisRate,
		reverseCharge: input.reverseCharge
	};
	const decisions: InvoiceFigures['decisions'] = {
		reverseCharge: regime.decideReverseCharge(parties),
		deduction: regime.decideDeduction(parties),
		rates: {}
	};
	const vat = registered
		? vatGroups(input, lines, decisions.reverseCharge.answer, regime, book)
		: [];
	if (input.statedVat) keepStatedVat(vat, input.statedVat, book);
	if (left) keepVatWithin(vat, left, input.pricesIncludeVat, book);

	for (const { treatment } of vat) {
		decisions.rates[treatment] = regime.decideRate(treatment, input.date);
	}
	takeVatOffLines(input, lines, vat, book);

	const net = registered
		? book.sum(
				'net',
				'Net, without VAT',
				vat.map((group) =>
					money(`Net at ${group.treatment}`, group.net, `vat.${group.treatment}.net`)
				)
			)
		: book.sum(
				'net',
				'Sum of the lines',
				lines.map((line, index) =>
					money(`Line ${index + 1}`, line.taxable, `lines.${index}.taxable`)
				),
				'notRegistered'
			);
	const charged = vat.filter((group) => !group.reverseCharge);
	const reversed = vat.filter((group) => group.reverseCharge);
	const vatOperands = (groups: typeof vat) =>
		groups.map((group) =>
			money(`VAT at ${group.treatment}`, group.vat, `vat.${group.treatment}.vat`)
		);
	const vatCharged = book.sum(
		'vatCharged',
		'VAT charged',
		vatOperands(charged),
		registered ? 'sum' : 'notRegistered'
	);
	const vatReverseCharged = book.sum(
		'vatReverseCharged',
		'VAT the customer accounts for',
		vatOperands(reversed),
		'reverseCharge'
	);
	const total = book.sum('total', 'Total', [
		money('Net', net, 'net'),
		money('VAT charged', vatCharged, 'vatCharged')
	]);

	const cis = decisions.deduction.answer ? deductionFigures(input, lines, net, book) : null;
	if (cis && left) keepDeductionWithin(cis, left, book);
	const payable = total - (cis?.deduction ?? 0n);
	const payableOperands = [money('Total', total, 'total')];
	if (cis)
		payableOperands.push(money('less the CIS deduction', cis.deduction, 'cis.deduction', -1));
	book.set('payable', 'They pay you', payable, 'sum', payableOperands, cis ? 'payable' : 'sum');

	return {
		lines,
		linesTotal,
		discount,
		retention,
		net,
		vat,
		vatCharged,
		vatReverseCharged,
		total,
		cis,
		payable,
		sterling: inSterling(input, vat, net, book),
		workings: book.entries,
		decisions
	};
}

function refuseContradictions(input: InvoiceInput): void {
	const { customer, seller } = input;
	refuseWrongCurrency(input);
	if (
		customer.kind === 'household' &&
		(customer.vatRegistered || customer.cisRegistered || customer.endUser)
	) {
		throw new FiguresError(
			'a household is neither VAT registered nor CIS registered nor an end user',
			'customer.kind'
		);
	}
	if (customer.kind === 'business' && customer.endUser) {
		throw new FiguresError('only a contractor can be an end user', 'customer.kind');
	}
	if (input.cisRate !== null && customer.kind !== 'contractor') {
		throw new FiguresError(
			'a deduction rate is only for a customer that makes CIS payments',
			'cisRate'
		);
	}
	if (!seller.vatRegistered) {
		if (input.pricesIncludeVat) {
			throw new FiguresError(
				'a seller that is not VAT registered has no prices including VAT',
				'pricesIncludeVat'
			);
		}
		if (input.reverseCharge) {
			throw new FiguresError(
				'a seller that is not VAT registered has no reverse charge',
				'reverseCharge'
			);
		}
	} else if (
		input.vatRounding === 'down' &&
		(input.pricesIncludeVat || customer.kind === 'household')
	) {
		throw new FiguresError(
			'VAT is rounded down only between businesses, on prices without VAT',
			'vatRounding'
		);
	}
	if (input.retention && input.pricesIncludeVat) {
		throw new FiguresError('a retention needs prices without VAT', 'retention');
	}
	for (const [index, line] of input.lines.entries()) {
		if (seller.vatRegistered && line.vat === null) {
			throw new FiguresError('a VAT treatment is needed', `lines.${index}.vat`);
		}
		if (line.cost !== null && (line.kind === 'levy' || line.vat === 'noSupply')) {
			throw new FiguresError('a levy or what is no supply has no cost', `lines.${index}.cost`);
		}
	}
}

function refuseWrongCurrency({ currency, sterlingRate, seller, cisRate }: InvoiceInput): void {
	if (currency === BOOKS) {
		if (sterlingRate)
			throw new FiguresError('sterling needs no exchange rate into sterling', 'sterlingRate');
		return;
	}
	if (seller.vatRegistered && !sterlingRate)
		throw new FiguresError(
			'VAT goes to the tax office in sterling: an exchange rate is needed',
			'sterlingRate'
		);
	if (cisRate !== null)
		throw new FiguresError('a CIS deduction is made in sterling alone', 'cisRate');
}
