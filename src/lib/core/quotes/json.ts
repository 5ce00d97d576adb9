// The JSON form of a quote's input and of what it comes to.
import { z } from 'zod';
import { discount, documentInput, lineInput, parseOrThrow } from '../figures/input';
import { optional } from '../figures/forms';
import { writeInvoiceFigures } from '../figures/output';
import { formatMoney } from '../money/decimal';
import type { QuoteFigures, QuoteInput } from './figures';

const name = z.string().min(1);

const quoteInput = documentInput.extend({
	lines: z
		.array(
			lineInput
				.extend({
					choice: optional(z.strictObject({ group: name, option: name })),
					extra: z.boolean().nullish()
				})
				.transform(({ extra, ...line }) => ({ ...line, extra: extra ?? false }))
				.refine(({ choice, extra }) => !(choice && extra), {
					path: ['extra'],
					message: 'expected a choice or an extra, not both'
				})
		)
		.min(1),
	chosen: z
		.strictObject({
			options: z.record(z.string(), z.string()).nullish(),
			extras: z.array(z.int().nonnegative()).nullish()
		})
		.nullish()
		.transform((chosen) => ({ options: chosen?.options ?? {}, extras: chosen?.extras ?? [] })),
	deposit: optional(discount)
});

/**
 * Reads a quote's input as it stands in JSON.
 * @throws FiguresError with the path of the first thing that is wrong
 */
export const readQuoteInput = (value: unknown): QuoteInput => parseOrThrow(quoteInput, value);

export function writeQuoteFigures({ included, figures, lowest, highest, deposit }: QuoteFigures) {
	const money = (amount: bigint | null) => (amount === null ? null : formatMoney(amount));
	return {
		included,
		figures: writeInvoiceFigures(figures),
		lowest: money(lowest),
		highest: money(highest),
		deposit: formatMoney(deposit)
	};
}
