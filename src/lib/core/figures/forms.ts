// The forms in which amounts, rates and dates come in from outside, as Zod schemas for the core's types.
import { z } from 'zod';
import { isPlainDate } from '../calendar/queries';
import { parseDecimal } from '../money/decimal';
import type { Decimal, Minor } from '../money/types';

interface DecimalForm {
	decimals: number;
	negative?: boolean;
	above?: bigint;
	percent?: boolean;
	expected: string;
}

function decimalForm({ decimals, negative, percent, expected }: DecimalForm) {
	return z.unknown().transform((value, context): Decimal => {
		const decimal = typeof value === 'string' ? parseDecimal(value) : null;
		const fits =
			decimal !== null &&
			decimal.scale <= decimals &&
			(negative || decimal.units >= 0n) &&
			(!percent || decimal.units <= 100n * 10n ** BigInt(decimal.scale));
		if (!fits) {
			context.addIssue({ code: 'custom', message: `expected ${expected}` });
			return z.NEVER;
		}
		return decimal;
	});
}

function toMinor({ units, scale }: Decimal): Minor {
	return units * 10n ** BigInt(2 - scale);
}

export const quantity = decimalForm({
	decimals: 4,
	negative: true,
	expected: 'a quantity as a decimal string with at most four decimals'
});
export const unitPrice = decimalForm({
	decimals: 4,
	expected: 'a unit price as a decimal string, not negative, with at most four decimals'
});
export const percentage = decimalForm({
	decimals: 4,
	percent: true,
	expected: 'a percentage from 0 to 100 as a decimal string with at most four decimals'
});
export const sterlingRate = decimalForm({
	decimals: 6,
	expected: 'sterling for one unit, above zero, as a decimal string with at most six decimals'
}).refine((rate) => rate.units > 0n, 'expected a rate above zero');
export const amount = decimalForm({
	decimals: 2,
	expected: 'an amount as a decimal string, not negative, with at most two decimals'
}).transform(toMinor);
export const signedAmount = decimalForm({
	decimals: 2,
	negative: true,
	expected: 'an amount as a decimal string with at most two decimals'
}).transform(toMinor);
export const amountAboveZero = amount.refine(
	(minor) => minor > 0n,
	'expected an amount above zero'
);

export const plainDate = z
	.unknown()
	// What is no date is looked at no further: rules over several fields would meet it otherwise.
	.refine((value) => typeof value === 'string' && isPlainDate(value), {
		error: 'expected a date YYYY-MM-DD that exists',
		abort: true
	})
	.transform((value) => value as string);

/** Absent and null mean the same. */
export function optional<T extends z.ZodType>(schema: T) {
	return schema.nullish().transform((value) => value ?? null);
}

/** Absent, null and false mean the same. */
export const optionalFlag = z
	.boolean()
	.nullish()
	.transform((value) => value ?? false);
