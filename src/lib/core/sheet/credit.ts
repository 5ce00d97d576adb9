// A part of an issued invoice that is credited: what is left of its lines, and the sheet of what is taken back.
// Every part is worked out from what is left, so that all parts together are the invoice, to the penny.
import { ALLOWABLE_KINDS, type InvoiceFigures, type InvoiceInput } from '../figures/types';
import type { CreditedPart, Frozen } from '../documents/types';
import {
	absolute,
	compare,
	divideRounded,
	formatDecimal,
	formatMoney,
	multiplyToMinor,
	parseDecimal,
	percentOf,
	powerOfTen
} from '../money/decimal';
import { displayPounds } from '../money/display';
import { shareOut } from '../money/sharing';
import type { Decimal, Minor } from '../money/types';
import { FieldError } from '../refusals';
import { sheetLines } from './blank';
import type { Sheet, SheetLine, SheetRow } from './types';

/** What is left of a line when some of it has been credited. */
export interface LeftLine {
	/** Among the invoice's lines, from 0. */
	position: number;
	row: SheetLine;
	unitPrice: Decimal;
	quantity: Decimal;
	net: Minor;
	retention: Minor;
	/** What was due on it and is still: its net less its shares of discount and retention. */
	taxable: Minor;
	/** Of what counted as its cost; null where none was given. */
	cost: Minor | null;
	/** How many there were at first, for what the paper says of a part. */
	of: Decimal;
}

/** What is asked to be taken back of a line: so many of its units, so much money, or, with neither, all that is left. */
export interface CreditWish {
	position: number;
	quantity?: Decimal;
	amount?: Minor;
}

/** The lines of an invoice, less what earlier credit notes took back of them. */
export function leftOnLines(
	{ sheet }: Pick<Frozen, 'sheet'>,
	input: InvoiceInput,
	figures: InvoiceFigures,
	earlier: readonly CreditedPart[]
): LeftLine[] {
	return sheetLines(sheet).map((row, position): LeftLine => {
		const line = input.lines[position]!;
		const { net, retention, taxable } = figures.lines[position]!;
		const gone = earlier.filter((part) => part.position === position);
		const less = (of: (part: CreditedPart) => number) =>
			gone.reduce((sum, part) => sum + BigInt(of(part)), 0n);
		return {
			position,
			row,
			unitPrice: line.unitPrice,
			of: line.quantity,
			quantity: gone.reduce(
				(left, { quantity }) =>
					quantity === null ? left : subtract(left, parseDecimal(quantity)!),
				line.quantity
			),
			net: net - less((part) => part.net),
			retention: retention - less((part) => part.retention),
			taxable: taxable - less((part) => part.taxable),
			cost:
				line.cost === null
					? null
					: countedCost(line.cost, input.retention) - less((part) => part.cost ?? 0)
		};
	});
}

/** The part of a cost that does not wait for the release of what is held back. */
const countedCost = (cost: Minor, retention: Decimal | null): Minor =>
	retention ? cost - percentOf(cost, retention) : cost;

function subtract(a: Decimal, b: Decimal): Decimal {
	const scale = Math.max(a.scale, b.scale);
	return {
		units: a.units * powerOfTen(scale - a.scale) - b.units * powerOfTen(scale - b.scale),
		scale
	};
}

const isNothing = (line: LeftLine): boolean =>
	line.quantity.units === 0n && line.taxable === 0n && line.net === 0n;

/** Whether nothing is left of any line after these parts. */
export const takesAll = (left: readonly LeftLine[], parts: readonly CreditedPart[]): boolean =>
	left.every(({ position, taxable, net }) => {
		const part = parts.find((one) => one.position === position);
		return taxable === BigInt(part?.taxable ?? 0) && net === BigInt(part?.net ?? 0);
	});

/**
 * What the wishes come to, line by line. A line of which nothing is left takes no part.
 * @param again whether the work goes back to its job; a price that goes down frees none
 * @throws FieldError at `quantity.N` or `amount.N` where more is asked than is left of line N
 */
export function creditParts(
	left: readonly LeftLine[],
	wishes: readonly CreditWish[],
	again: boolean
): CreditedPart[] {
	const wrong: Record<string, string> = {};
	const parts = wishes.flatMap((wish): CreditedPart[] => {
		const line = left.find(({ position }) => position === wish.position);
		if (!line || isNothing(line)) return [];
		if (wish.amount !== undefined) {
			if (line.taxable <= 0n || wish.amount > line.taxable || wish.amount <= 0n) {
				wrong[`amount.${wish.position}`] =
					wish.amount <= 0n
						? 'An amount above zero.'
						: line.taxable <= 0n
							? 'Nothing is left to take off this line. Credit the whole line.'
							: `At most ${displayPounds(line.taxable)} is left of this line.`;
				return [];
			}
			return [byAmount(line, wish.amount)];
		}
		const quantity = wish.quantity ?? line.quantity;
		if (!fitsInto(quantity, line.quantity)) {
			wrong[`quantity.${wish.position}`] =
				line.quantity.units === 0n
					? 'None is left; its price can still go down.'
					: `From above zero to ${formatDecimal(line.quantity)}: so many are left.`;
			return [];
		}
		return [byQuantity(line, quantity, again)];
	});
	if (Object.keys(wrong).length) throw new FieldError(wrong);
	return parts;
}

/** More than nothing, at most what is left, and with its sign; the rest of a line without a quantity goes whole. */
function fitsInto(quantity: Decimal, left: Decimal): boolean {
	const rest = subtract(left, quantity);
	if (left.units === 0n) return quantity.units === 0n;
	return left.units > 0n
		? quantity.units > 0n && rest.units >= 0n
		: quantity.units < 0n && rest.units <= 0n;
}

/** The part of an amount that goes with `part` of `whole` units. */
function proportion(amount: Minor, part: Decimal, whole: Decimal): Minor {
	if (whole.units === 0n) return amount;
	const sign = whole.units < 0n ? -1n : 1n;
	return divideRounded(
		amount * part.units * powerOfTen(whole.scale) * sign,
		absolute(whole.units) * powerOfTen(part.scale)
	);
}

function byQuantity(line: LeftLine, quantity: Decimal, again: boolean): CreditedPart {
	const of = (amount: Minor) => Number(proportion(amount, quantity, line.quantity));
	const retention = of(line.retention);
	const net = of(line.net);
	// The three keep to each other: what is due is the net less its shares.
	const discount = of(line.net - line.retention - line.taxable);
	return {
		position: line.position,
		quantity: formatDecimal(quantity),
		net,
		retention,
		taxable: net - retention - discount,
		cost: line.cost === null ? null : of(line.cost),
		again
	};
}

/** Its price goes down: what was paid for its materials stays paid. */
function byAmount(line: LeftLine, amount: Minor): CreditedPart {
	const of = (whole: Minor) => divideRounded(whole * amount, line.taxable);
	const retention = of(line.retention);
	const discount = of(line.net - line.retention - line.taxable);
	return {
		position: line.position,
		quantity: null,
		net: Number(amount + retention + discount),
		retention: Number(retention),
		taxable: Number(amount),
		cost: line.cost === null ? null : 0,
		again: false
	};
}

/** An amount off an invoice, shared over what is left of its lines. @throws FieldError at `off` */
export function amountOff(left: readonly LeftLine[], amount: Minor): CreditWish[] {
	const weights = left.map(({ taxable }) => (taxable > 0n ? taxable : 0n));
	const most = left.reduce((sum, { taxable }) => sum + taxable, 0n);
	if (amount <= 0n) throw new FieldError({ off: 'An amount above zero.' });
	if (amount > most) throw new FieldError({ off: `At most ${displayPounds(most)} is left.` });
	return shareOut(amount, weights).flatMap((part, index) =>
		part === 0n ? [] : [{ position: left[index]!.position, amount: part }]
	);
}

/** The sheet of what is taken back: the invoice's, with the parts of its lines at what was due on them. */
export function creditSheet(
	sheet: Sheet,
	left: readonly LeftLine[],
	parts: readonly CreditedPart[]
): Sheet {
	const rows = new Map<string, SheetLine>();
	for (const part of parts) {
		const line = left.find(({ position }) => position === part.position)!;
		rows.set(line.row.id, creditRow(line, part));
	}
	const kept = sheet.rows.flatMap((row): SheetRow[] =>
		row.type === 'heading' ? [row] : [...(rows.has(row.id) ? [rows.get(row.id)!] : [])]
	);
	// What other books rounded belongs to the whole invoice.
	const { opening: _opening, ...same } = sheet;
	return {
		...same,
		discount: '',
		retention: '',
		rows: kept.filter((row, index) => row.type === 'line' || kept[index + 1]?.type === 'line')
	};
}

function creditRow({ row, quantity, unitPrice, of }: LeftLine, part: CreditedPart): SheetLine {
	const { bills: _bills, stageLineId: _line, discount: _discount, ...same } = row;
	const taxable = BigInt(part.taxable);
	const cost = part.cost === null ? '' : formatMoney(BigInt(part.cost));
	if (part.quantity === null)
		return {
			...same,
			description: `Reduction: ${row.description.trim()}`,
			quantity: '1',
			unit: '',
			unitPrice: formatMoney(taxable),
			discount: '',
			// Materials whose cost nobody gave go down with their price.
			cost: cost === '' && ALLOWABLE_KINDS.has(row.kind) ? '' : cost
		};
	const taken = parseDecimal(part.quantity)!;
	const extension = multiplyToMinor(taken, unitPrice);
	if (
		taken.units !== 0n &&
		(extension === taxable || (taken.units > 0n && extension > taxable && taxable >= 0n))
	)
		return {
			...same,
			quantity: part.quantity,
			discount: extension === taxable ? '' : formatMoney(extension - taxable),
			cost
		};
	// To the penny it is not so many times the price: then it is one, at what it comes to.
	const whole = taken.units === 0n || compare(absolute(taken.units), absolute(of.units)) === 0;
	return {
		...same,
		description:
			whole || quantity.units === 0n
				? row.description
				: `${row.description.trim()} (${part.quantity} of ${[formatDecimal(of), row.unit.trim()].filter(Boolean).join(' ')})`,
		quantity: taxable < 0n ? '-1' : '1',
		unit: '',
		unitPrice: formatMoney(absolute(taxable)),
		discount: '',
		cost
	};
}
