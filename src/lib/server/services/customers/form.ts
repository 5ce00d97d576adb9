// What may be said of a customer, and what the law rules out, each with its message at its field.
import { z } from 'zod';
import { CURRENCIES } from '../../../core/money/currencies';
import { readVerificationNumber } from '../../../core/regimes/gb/checks';
import { CIS_RATES, CUSTOMER_KINDS } from '../../../core/regimes/types';
import { FieldError } from '../../../core/refusals';
import { day, email, labels, text } from '../business/fields';

export const standingForm = z.object({
	from: day,
	vatRegistered: z.boolean().default(false),
	vatNumber: text(20),
	cisRegistered: z.boolean().default(false),
	cisRate: z.enum(CIS_RATES).nullable().default(null),
	verificationNumber: text(20),
	endUser: z.boolean().default(false),
	endUserStatement: text(2000),
	endUserDate: day
});

export const customerForm = z.object({
	name: z.string().trim().min(1, 'A name is needed.').max(300, 'At most 300 characters.'),
	kind: z.enum(CUSTOMER_KINDS, 'Choose what they are.').default('household'),
	email,
	phone: text(50),
	address: text(1000),
	billToId: z.number().int().positive().nullable().default(null),
	currency: z.enum(CURRENCIES, 'Choose one of these.').default('GBP'),
	termsDays: z
		.number('A number of days.')
		.int('Whole days.')
		.min(0, 'Not below zero.')
		.max(999, 'At most 999 days.')
		.nullable()
		.default(null),
	termsEndOfMonth: z.boolean().default(false),
	orderNumberRequired: z.boolean().default(false),
	inTrade: z.boolean().default(false),
	payWays: z
		.object({ card: z.boolean(), bank: z.boolean(), transfer: z.boolean() })
		.refine((ways) => Object.values(ways).some(Boolean), 'Leave at least one way to pay.')
		.nullable()
		.default(null)
		// In every way is how everybody pays of whom nothing is said.
		.transform((ways) => (ways && Object.values(ways).every(Boolean) ? null : ways)),
	letterheadId: z.number().int().positive().nullable().catch(null).default(null),
	salutation: text(120),
	privateNote: text(10_000),
	labels,
	standing: standingForm.optional(),
	contacts: z
		.array(
			z.object({
				id: z.number().int().optional(),
				name: z.string().trim().min(1, 'A name is needed.').max(200),
				role: text(100),
				email,
				phone: text(50)
			})
		)
		.max(100)
		.optional(),
	sites: z
		.array(
			z.object({
				id: z.number().int().optional(),
				name: z.string().trim().min(1, 'A name is needed.').max(200),
				address: text(1000),
				accessNotes: text(2000),
				contactName: text(200),
				contactEmail: text(320).refine(
					(value) => value === '' || z.email().safeParse(value).success,
					'Not a full e-mail address.'
				),
				contactPhone: text(40),
				billToId: z.number().int().positive().nullable().default(null)
			})
		)
		.max(1000)
		.optional()
});
export type CustomerForm = z.input<typeof customerForm>;

export type CustomerParsed = z.output<typeof customerForm>;

/** Contradictions that the law rules out (`tax-gb.md` 1), said at their field. */
export function checkCustomer(form: CustomerParsed): CustomerParsed {
	const { standing } = form;
	if (!standing) return form;
	const problems: Record<string, string> = {};
	if (form.currency !== 'GBP' && form.kind === 'contractor' && standing.cisRate !== null)
		problems.currency =
			'CIS deductions are made in pounds: a contractor that deducts is billed in pounds.';
	if (form.kind !== 'contractor') {
		if (standing.cisRate !== null)
			problems['standing.cisRate'] =
				'Only a customer that makes CIS payments has a deduction rate.';
		if (standing.endUser) problems['standing.endUser'] = 'Only a contractor can be an end user.';
	}
	if (form.kind === 'household' && standing.vatRegistered)
		problems['standing.vatRegistered'] = 'A household is not VAT registered.';
	const verification = standing.verificationNumber
		? readVerificationNumber(standing.verificationNumber)
		: null;
	if (standing.verificationNumber && !verification)
		problems['standing.verificationNumber'] =
			'V and ten digits, perhaps with a letter or two after them.';
	if (
		verification &&
		!verification.matched &&
		standing.cisRate !== null &&
		standing.cisRate !== '30'
	) {
		problems['standing.cisRate'] =
			'That verification number means “not matched”, so the rate is 30 %.';
	}
	if (Object.keys(problems).length) throw new FieldError(problems);
	return form;
}
