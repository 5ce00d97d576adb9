// Quantities from measurements: length × width × height, less openings, kept with the line and shown in its workings.
import { formatDecimal, parseDecimal } from '../money/decimal';
import { divideRounded, powerOfTen } from '../money/decimal';
import { readTypedNumber } from '../money/typed';
import type { Decimal } from '../money/types';
import type { Measured } from '../sheet/types';

const ONE: Decimal = { units: 1n, scale: 0 };

/** A length as typed; null where it is none. An empty one takes no part. */
function side(typed: string): Decimal | null {
	if (typed.trim() === '') return ONE;
	const read = readTypedNumber(typed, { decimals: 4 });
	return read.ok ? parseDecimal(read.text)! : null;
}

const times = (a: Decimal, b: Decimal): Decimal => ({
	units: a.units * b.units,
	scale: a.scale + b.scale
});

const less = (a: Decimal, b: Decimal): Decimal => {
	const scale = a.scale > b.scale ? a.scale : b.scale;
	return {
		units: a.units * powerOfTen(scale - a.scale) - b.units * powerOfTen(scale - b.scale),
		scale
	};
};

/** What it comes to, half up to two decimals; null where a length is none, or more is taken off than there is. */
export function measuredQuantity({ length, width, height, off }: Measured): string | null {
	if ([length, width, height].every((one) => one.trim() === '')) return null;
	const sides = [length, width, height].map(side);
	const openings = off.filter((one) => one.width.trim() !== '' || one.height.trim() !== '');
	if (sides.some((one) => one === null)) return null;
	let area = sides.reduce<Decimal>((product, one) => times(product, one!), ONE);
	for (const opening of openings) {
		const [w, h] = [side(opening.width), side(opening.height)];
		if (!w || !h) return null;
		area = less(area, times(w, h));
	}
	if (area.units < 0n) return null;
	const hundredths = divideRounded(area.units * 100n, powerOfTen(area.scale));
	return formatDecimal({ units: hundredths, scale: 2 });
}

/** `4.2 × 2.4 less 0.9 × 2`, as it is shown in the workings. */
export function measuredWords({ length, width, height, off }: Measured): string {
	const join = (sides: string[]) =>
		sides
			.map((one) => one.trim())
			.filter(Boolean)
			.join(' × ');
	return [
		join([length, width, height]),
		...off.map((one) => join([one.width, one.height])).filter(Boolean)
	].join(' less ');
}
