// The JSON form of an invoice's figures: decimal strings, exactly two decimals for money.
import { formatDecimal, formatMoney } from '../money/decimal';
import type { InvoiceFigures } from './types';

export function writeInvoiceFigures(figures: InvoiceFigures) {
	return {
		lines: figures.lines.map((line) => ({
			extension: formatMoney(line.extension),
			lineDiscount: formatMoney(line.lineDiscount),
			net: formatMoney(line.net),
			documentDiscount: formatMoney(line.documentDiscount),
			retention: formatMoney(line.retention),
			taxable: formatMoney(line.taxable)
		})),
		linesTotal: formatMoney(figures.linesTotal),
		discount: formatMoney(figures.discount),
		retention: formatMoney(figures.retention),
		net: formatMoney(figures.net),
		vat: figures.vat.map((group) => ({
			treatment: group.treatment,
			rate: group.rate && formatDecimal(group.rate),
			net: formatMoney(group.net),
			vat: formatMoney(group.vat),
			reverseCharge: group.reverseCharge
		})),
		vatCharged: formatMoney(figures.vatCharged),
		vatReverseCharged: formatMoney(figures.vatReverseCharged),
		total: formatMoney(figures.total),
		cis: figures.cis && {
			rate: figures.cis.rate,
			gross: formatMoney(figures.cis.gross),
			materials: formatMoney(figures.cis.materials),
			assumed: figures.cis.assumed,
			base: formatMoney(figures.cis.base),
			deduction: formatMoney(figures.cis.deduction)
		},
		payable: formatMoney(figures.payable),
		...(figures.sterling && {
			sterling: {
				rate: formatDecimal(figures.sterling.rate),
				net: formatMoney(figures.sterling.net),
				vatCharged: formatMoney(figures.sterling.vatCharged),
				vatReverseCharged: formatMoney(figures.sterling.vatReverseCharged)
			}
		})
	};
}
