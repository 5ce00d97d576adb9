// Exact decimals: reading, writing and the one rounding rule (half away from zero).
import type { Decimal, Minor } from './types';

const DECIMAL = /^-?[0-9]+(?:\.[0-9]+)?$/;
const POWERS: bigint[] = Array.from({ length: 40 }, (_, exponent) => 10n ** BigInt(exponent));

/** 10 to the power of a small whole number. */
export function powerOfTen(exponent: number): bigint {
	return POWERS[exponent] ?? 10n ** BigInt(exponent);
}

/** Reads `-?digits(.digits)?`; null for anything else. Decimals count as written: `1.00` has two. */
export function parseDecimal(text: string): Decimal | null {
	if (!DECIMAL.test(text)) return null;
	const point = text.indexOf('.');
	if (point < 0) return { units: BigInt(text), scale: 0 };
	return {
		units: BigInt(text.slice(0, point) + text.slice(point + 1)),
		scale: text.length - point - 1
	};
}

/** Reads an amount of money with at most two decimals into minor units; null where it is none. */
export function parseMoney(text: string): Minor | null {
	const decimal = parseDecimal(text);
	return decimal && decimal.scale <= 2 ? decimal.units * powerOfTen(2 - decimal.scale) : null;
}

/** Writes a decimal without trailing zeros: `17.50` → `17.5`. */
export function formatDecimal({ units, scale }: Decimal): string {
	const text = formatFixed(units, scale);
	return scale > 0 ? text.replace(/\.?0+$/, '') : text;
}

/** Writes minor units with exactly two decimals, never `-0.00`. */
export function formatMoney(minor: Minor): string {
	return formatFixed(minor, 2);
}

function formatFixed(units: bigint, scale: number): string {
	const digits = (units < 0n ? -units : units).toString().padStart(scale + 1, '0');
	const sign = units < 0n ? '-' : '';
	return scale === 0 ? sign + digits : `${sign}${digits.slice(0, -scale)}.${digits.slice(-scale)}`;
}

/** `numerator / denominator` rounded half away from zero; the denominator is above zero. */
export function divideRounded(numerator: bigint, denominator: bigint): bigint {
	const quotient = numerator / denominator;
	const remainder = numerator % denominator;
	const twice = 2n * (remainder < 0n ? -remainder : remainder);
	if (twice < denominator) return quotient;
	return numerator < 0n ? quotient - 1n : quotient + 1n;
}

/** `round(quantity × price)` in minor units. */
export function multiplyToMinor(quantity: Decimal, price: Decimal): Minor {
	const scale = quantity.scale + price.scale;
	const product = quantity.units * price.units;
	return scale <= 2
		? product * powerOfTen(2 - scale)
		: divideRounded(product, powerOfTen(scale - 2));
}

/** `round(amount × percent / 100)`. */
export function percentOf(amount: Minor, percent: Decimal): Minor {
	return divideRounded(amount * percent.units, powerOfTen(percent.scale + 2));
}

/** `round(amount × rate)`: an amount of one currency in another. */
export function converted(amount: Minor, rate: Decimal): Minor {
	return divideRounded(amount * rate.units, powerOfTen(rate.scale));
}

/** The part of a gross amount that is tax at this rate: `round(gross × rate / (100 + rate))`. */
export function taxWithin(gross: Minor, rate: Decimal): Minor {
	return divideRounded(gross * rate.units, 100n * powerOfTen(rate.scale) + rate.units);
}

export function max(a: bigint, b: bigint): bigint {
	return a > b ? a : b;
}

export function min(a: bigint, b: bigint): bigint {
	return a < b ? a : b;
}

export function absolute(a: bigint): bigint {
	return a < 0n ? -a : a;
}

/** The order of two amounts, the smaller first, as `sort` wants it. */
export function compare(a: bigint, b: bigint): number {
	return a < b ? -1 : a > b ? 1 : 0;
}
