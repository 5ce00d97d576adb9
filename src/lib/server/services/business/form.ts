// The owner’s business as it is typed.
import { z } from 'zod';
import { STAGGERS } from '../../../core/reports/periods';
import { isAccountNumber, isBic, isIban, isSortCode } from '../../../core/regimes/gb/checks';

/** A box of text; one that is missing is empty. `needed` says why it may not be. */
const text = (most: number, needed?: string) =>
	z
		.string()
		.optional()
		.transform((value) => (value ?? '').trim())
		.pipe(
			z
				.string()
				.min(needed ? 1 : 0, needed)
				.max(most, `At most ${most} characters.`)
		);
const checkbox = z
	.union([z.boolean(), z.literal('on').transform(() => true)])
	.optional()
	.transform((value) => value ?? false);
const optionalEmail = text(200).refine(
	(value) => value === '' || z.email().safeParse(value).success,
	'That is no e-mail address.'
);

export const businessForm = z.object({
	ownerName: text(200, 'The law wants your own name on every invoice.'),
	tradingName: text(200),
	address: text(1000, 'The law wants an address on every invoice.'),
	email: optionalEmail,
	phone: text(50),
	vatRegistered: checkbox,
	vatNumber: text(20),
	vatFrom: text(10),
	vatBasis: z.enum(['invoice', 'cash']).catch('invoice').default('invoice'),
	vatCashFrom: text(10),
	vatStagger: z.enum(STAGGERS).catch('').default(''),
	cisSubcontractor: checkbox,
	// A wrong digit is said beside the field and stands in nobody's way (docs/tax-gb.md 10).
	utr: text(20),
	bankAccountName: text(100),
	bankSortCode: text(20).refine(
		(value) => value === '' || isSortCode(value),
		'A sort code has six digits.'
	),
	bankAccountNumber: text(20).refine(
		(value) => value === '' || isAccountNumber(value),
		'An account number has eight digits.'
	),
	bankIban: text(50).refine(
		(value) => value === '' || isIban(value),
		'One of these characters is wrong: two letters, two digits, then as your bank gives it.'
	),
	bankBic: text(20).refine((value) => value === '' || isBic(value), 'Eight or eleven characters.'),
	termsDays: z.coerce
		.number({ error: 'A number of days.' })
		.int('Whole days.')
		.min(0, 'Not below zero.')
		.max(999, 'At most 999 days.')
		.default(14),
	termsEndOfMonth: checkbox,
	invoicePattern: text(30).transform((value) => value || 'INV-{nnnn}'),
	invoiceNext: z.coerce
		.number({ error: 'A number.' })
		.int('A whole number.')
		.min(1, 'At least 1.')
		.max(99_999_999, 'That is too large.')
		.default(1),
	copyToSelf: checkbox,
	textPrice: text(10).refine(
		(value) => value === '' || /^\d{1,2}(\.\d{1,4})?$/.test(value),
		'Pounds for one part, such as 0.045.'
	),
	passOnCardFees: checkbox
});
export type BusinessForm = z.input<typeof businessForm>;
export type Parsed = z.output<typeof businessForm>;
