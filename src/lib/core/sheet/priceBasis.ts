// A price of the price list, with or without VAT, on a document that takes its prices the other way.
import {
	divideRounded,
	formatDecimal,
	formatMoney,
	parseDecimal,
	powerOfTen
} from '../money/decimal';
import type { Decimal } from '../money/types';
import type { PlainDate } from '../calendar/types';
import { GB } from '../regimes/gb';
import type { VatTreatment } from '../regimes/types';
import type { SheetLine } from './types';

/** A price has at most as many decimals as a sheet takes. */
const DECIMALS = 4;

/**
 * A price with VAT taken out of it, or put into it.
 * @param price decimal text, pounds; what is no price stays as it is
 * @param rate percent; null where there is no VAT at all
 */
export function priceOn(price: string, from: boolean, to: boolean, rate: Decimal | null): string {
	const read = parseDecimal(price.trim());
	if (read === null || from === to || rate === null) return price;
	const whole = 100n * powerOfTen(rate.scale);
	const [times, by] = to ? [whole + rate.units, whole] : [whole, whole + rate.units];
	const units = divideRounded(
		read.units * times * powerOfTen(DECIMALS),
		by * powerOfTen(read.scale)
	);
	const [pounds = '0', pence = ''] = formatDecimal({ units, scale: DECIMALS }).split('.');
	return `${pounds}.${pence.replace(/0+$/, '').padEnd(2, '0')}`;
}

/**
 * A price in other money: what so many pounds are, to a whole cent.
 * @param rate pounds for one of the money it is in, and of the money it becomes; null: it is pounds
 */
export function priceInMoney(price: string, from: Decimal | null, to: Decimal | null): string {
	const read = parseDecimal(price.trim());
	if (read === null) return price;
	const [up, down] = [from ?? ONE, to ?? ONE];
	const units = divideRounded(
		read.units * up.units * powerOfTen(2 + down.scale),
		down.units * powerOfTen(read.scale + up.scale)
	);
	return formatMoney(units);
}

const ONE: Decimal = { units: 1n, scale: 0 };

/** Gives a treatment's rate on the day of the document; null where it bears no VAT. */
export type RateOf = (treatment: VatTreatment) => Decimal | null;

/** The rates in force on a day; none at all where the seller charges no VAT. */
export const ratesOn =
	(date: PlainDate, registered: boolean): RateOf =>
	(treatment) =>
		registered ? (GB.rateOn(treatment, date)?.rate ?? null) : null;

/** A line from the price list, with its price as the document takes prices. What it was there stays with it. */
export function onBasis(line: SheetLine, includes: boolean, rateOf: RateOf): SheetLine {
	const { listPrice, ...plain } = line;
	if (!listPrice || listPrice.withVat === includes) return plain;
	const rate = rateOf(line.vat);
	if (rate === null) return plain;
	return { ...line, unitPrice: priceOn(listPrice.price, listPrice.withVat, includes, rate) };
}

/** How a line's price came from the price list, while it is still that price. */
export function fromList(
	line: SheetLine,
	includes: boolean,
	rateOf: RateOf
): { price: string; withVat: boolean; rate: Decimal } | null {
	const rate = rateOf(line.vat);
	if (!line.listPrice || rate === null || line.listPrice.withVat === includes) return null;
	const { price, withVat } = line.listPrice;
	const [now, then] = [line.unitPrice, priceOn(price, withVat, includes, rate)].map((text) =>
		parseDecimal(text.trim())
	);
	const same =
		now && then && now.units * powerOfTen(then.scale) === then.units * powerOfTen(now.scale);
	return same ? { price, withVat, rate } : null;
}
