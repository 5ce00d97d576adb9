// Reading the JSON form of an invoice's input into the core's types.
import { z } from 'zod';
import { CURRENCIES } from '../money/currencies';
import { CIS_RATES, CONTRACT_CLASSES, CUSTOMER_KINDS, VAT_TREATMENTS } from '../regimes/types';
import {
	amount,
	optional,
	optionalFlag as flag,
	percentage,
	plainDate,
	quantity,
	sterlingRate,
	unitPrice
} from './forms';
import { FiguresError, LINE_KINDS, type Discount, type InvoiceInput } from './types';

/** Percent of it, or an amount. */
export const discount = z
	.strictObject({ percent: percentage.nullish(), amount: amount.nullish() })
	.transform((value, context): Discount => {
		const { percent, amount } = value;
		if (percent != null && amount == null) return { percent };
		if (amount != null && percent == null) return { amount };
		context.addIssue({ code: 'custom', message: 'expected exactly one of percent and amount' });
		return z.NEVER;
	});

/** A line as it stands in JSON. */
export const lineInput = z.strictObject({
	kind: z.enum(LINE_KINDS),
	quantity,
	unitPrice,
	vat: optional(z.enum(VAT_TREATMENTS)),
	discount: optional(discount),
	cost: optional(amount)
});

/** What holds for the whole document. */
export const documentInput = z.strictObject({
	regime: z.literal('GB'),
	date: plainDate,
	currency: z.enum(CURRENCIES),
	sterlingRate: optional(sterlingRate),
	pricesIncludeVat: flag,
	vatRounding: z
		.enum(['nearest', 'down'])
		.nullish()
		.transform((value) => value ?? 'nearest'),
	seller: z.strictObject({ vatRegistered: z.boolean() }),
	customer: z.strictObject({
		kind: z.enum(CUSTOMER_KINDS),
		vatRegistered: flag,
		cisRegistered: flag,
		endUser: flag
	}),
	contract: z
		.enum(CONTRACT_CLASSES)
		.nullish()
		.transform((value) => value ?? 'construction'),
	cisRate: optional(z.enum(CIS_RATES)),
	discount: optional(discount),
	retention: optional(z.strictObject({ percent: percentage }).transform(({ percent }) => percent))
});

const invoiceInput = documentInput.extend({
	reverseCharge: optional(z.boolean()),
	lines: z.array(lineInput).min(1)
});

/**
 * Reads an invoice's input as it stands in JSON.
 * @throws FiguresError with the path of the first thing that is wrong.
 */
export function readInvoiceInput(value: unknown): InvoiceInput {
	return parseOrThrow(invoiceInput, value);
}

/** Parses with a schema and turns the first issue into a `FiguresError` at its path. */
export function parseOrThrow<T extends z.ZodType>(schema: T, value: unknown): z.output<T> {
	const result = schema.safeParse(value);
	if (result.success) return result.data;
	const issue = result.error.issues[0]!;
	const unknownField = issue.code === 'unrecognized_keys' ? [issue.keys[0]!] : [];
	throw new FiguresError(issue.message, [...issue.path, ...unknownField].join('.'));
}
