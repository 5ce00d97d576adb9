// A part of an invoice that is credited: rounded within what is left, so that all parts together are the invoice, to the penny.
import { min } from '../money/decimal';
import type { Minor } from '../money/types';
import type { CisFigures, Left, VatGroup } from './types';
import { money, type WorkingsBook } from './workings';

/** The VAT of the last part is what is left; that of any other part is worked out, and at most that. */
export function keepVatWithin(
	groups: VatGroup[],
	left: Left,
	pricesIncludeVat: boolean,
	book: WorkingsBook
): void {
	for (const group of groups) {
		const own = left.groups.find(({ treatment }) => treatment === group.treatment);
		if (!own) continue;
		const kept = left.all ? own.vat : within(group.vat, own.vat);
		if (kept === group.vat) continue;
		const path = `vat.${group.treatment}`;
		if (pricesIncludeVat) {
			const gross = group.net + group.vat;
			group.net = gross - kept;
			book.set(
				`${path}.net`,
				book.entries.get(`${path}.net`)!.label,
				group.net,
				'sum',
				[
					money('Including VAT', gross, `${path}.gross`),
					money('less the VAT in it', kept, `${path}.vat`, -1)
				],
				'vatWithinGross'
			);
		}
		keep(`${path}.vat`, group.vat, kept, book);
		group.vat = kept;
	}
}

export function keepDeductionWithin(cis: CisFigures, left: Left, book: WorkingsBook): void {
	if (left.deduction === null) return;
	const kept = left.all ? left.deduction : within(cis.deduction, left.deduction);
	if (kept === cis.deduction) return;
	keep('cis.deduction', cis.deduction, kept, book);
	cis.deduction = kept;
}

/** Less than nothing is left only where other parts below zero will make up for it. */
const within = (amount: Minor, left: Minor): Minor => (left < 0n ? amount : min(amount, left));

function keep(path: string, worked: Minor, kept: Minor, book: WorkingsBook): void {
	const { label } = book.entries.get(path)!;
	book.set(
		path,
		label,
		kept,
		'limit',
		[money('As worked out for this part', worked)],
		'creditLeft',
		{
			atLeast: kept,
			atMost: kept
		}
	);
}
