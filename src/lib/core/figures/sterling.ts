// A document in another currency, in sterling: group by group at the rate of its tax point, as the tax office wants its VAT.
import { converted } from '../money/decimal';
import type { Minor } from '../money/types';
import type { InvoiceInput, SterlingFigures, VatGroup } from './types';
import { money, number, type WorkingsBook } from './workings';

/** Null in sterling, and without a rate. Without groups (a seller who is not registered) the net is taken as a whole. */
export function inSterling(
	{ sterlingRate: rate }: InvoiceInput,
	groups: readonly VatGroup[],
	net: Minor,
	book: WorkingsBook
): SterlingFigures | null {
	if (!rate) return null;
	const convert = (label: string, amount: Minor, figure: string) => {
		const value = converted(amount, rate);
		const path = `sterling.${figure}`;
		const operands = [money(label, amount, figure), number('sterling for one unit', rate)];
		book.set(path, `${label} in sterling`, value, 'converted', operands, 'sterling');
		return money(label, value, path);
	};
	const nets = groups.map((group) =>
		convert(`Net at ${group.treatment}`, group.net, `vat.${group.treatment}.net`)
	);
	const taxes = groups.map((group) => ({
		...group,
		sterling: convert(`VAT at ${group.treatment}`, group.vat, `vat.${group.treatment}.vat`)
	}));
	const of = (reversed: boolean) =>
		taxes.filter((group) => group.reverseCharge === reversed).map((group) => group.sterling);
	return {
		rate,
		net: groups.length
			? book.sum('sterling.net', 'Net in sterling', nets)
			: convert('Net', net, 'net').value,
		vatCharged: book.sum('sterling.vatCharged', 'VAT charged, in sterling', of(false)),
		vatReverseCharged: book.sum(
			'sterling.vatReverseCharged',
			'VAT the customer accounts for, in sterling',
			of(true),
			'reverseCharge'
		)
	};
}
