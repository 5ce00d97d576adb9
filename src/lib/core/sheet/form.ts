// The JSON form of a sheet, as it comes from the browser: shape and sizes only, every text as typed.
import { z } from 'zod';
import { isPlainDate } from '../calendar/queries';
import { CURRENCIES } from '../money/currencies';
import { LINE_KINDS } from '../figures/types';
import { BILLED_TYPES } from '../jobs/types';
import { CONTRACT_CLASSES, VAT_TREATMENTS } from '../regimes/types';
import { ABOUT, CONTRACT_PLACES, GROUPINGS, QUOTE_DETAILS, type Sheet } from './types';

// Beyond what the sheet accepts, so that too long a text is kept and said to be so.
const typed = z.string().max(50_000);
const id = z.string().min(1).max(40);
const rowId = z.number().int().positive();
const plainDate = z.string().refine(isPlainDate);

export const sheetForm: z.ZodType<Sheet> = z.strictObject({
	customerId: z.number().int().nullable(),
	siteId: z.number().int().nullable(),
	billToId: rowId.optional(),
	contract: z.enum(CONTRACT_CLASSES).nullable(),
	contractReason: typed.optional(),
	endUser: z.strictObject({ statement: typed, date: typed }).optional(),
	rateOfWork: z.boolean().optional(),
	issueDate: typed,
	workFinished: typed,
	dueDate: typed,
	termsDays: typed,
	reference: typed,
	orderNumber: typed,
	note: typed,
	currency: z.enum(CURRENCIES).optional(),
	exchange: z.strictObject({ rate: typed, source: typed }).optional(),
	pricesIncludeVat: z.boolean(),
	roundVatDown: z.boolean(),
	grouping: z.enum(GROUPINGS),
	discount: typed,
	retention: typed,
	retentionDue: z.union([z.literal(''), plainDate]).optional(),
	stageId: rowId.optional(),
	releases: z.array(rowId).max(500).optional(),
	paidOn: plainDate.optional(),
	workKindId: rowId.optional(),
	letterheadId: rowId.optional(),
	own: z
		.strictObject({
			address: typed.optional(),
			contact: typed.optional(),
			bank: z
				.strictObject({ accountName: typed, sortCode: typed, accountNumber: typed })
				.optional(),
			ways: z
				.strictObject({ card: z.boolean(), bank: z.boolean(), transfer: z.boolean() })
				.optional()
		})
		.optional(),
	quote: z
		.strictObject({
			binding: z.boolean(),
			title: typed,
			detail: z.enum(QUOTE_DETAILS),
			validDays: typed,
			begin: typed,
			duration: typed,
			before: typed,
			notIncluded: typed,
			assumed: typed,
			guarantee: typed,
			terms: typed,
			deposit: typed,
			stages: z.array(z.strictObject({ title: typed, percent: typed })).max(50),
			place: z.enum(CONTRACT_PLACES),
			urgent: z.boolean(),
			newBuilding: z.boolean()
		})
		.optional(),
	charge: z.literal('late').optional(),
	prompt: z.strictObject({ percent: typed, days: typed }).optional(),
	selfBilled: z.strictObject({ number: typed, agreedOn: typed }).optional(),
	deposit: z.literal(true).optional(),
	about: z.strictObject({ as: z.enum(ABOUT), invoiceId: rowId, reason: typed }).optional(),
	rows: z
		.array(
			z.union([
				z.strictObject({
					id,
					type: z.literal('line'),
					kind: z.enum(LINE_KINDS),
					description: typed,
					quantity: typed,
					unit: typed,
					unitPrice: typed,
					vat: z.enum(VAT_TREATMENTS),
					vatReason: typed,
					discount: typed,
					cost: typed,
					jobId: rowId.optional(),
					bills: z
						.array(z.strictObject({ type: z.enum(BILLED_TYPES), id: rowId }))
						.max(5_000)
						.optional(),
					stageLineId: rowId.optional(),
					workDone: plainDate.optional(),
					itemId: rowId.optional(),
					listPrice: z.strictObject({ price: typed, withVat: z.boolean() }).optional(),
					choice: z.strictObject({ group: typed, option: typed }).optional(),
					extra: z.literal(true).optional(),
					most: typed.optional(),
					provisional: z.literal(true).optional(),
					measured: z
						.strictObject({
							length: typed,
							width: typed,
							height: typed,
							off: z.array(z.strictObject({ width: typed, height: typed })).max(50)
						})
						.optional(),
					income: z.string().max(60).optional(),
					centre: z.string().max(60).optional()
				}),
				z.strictObject({
					id,
					type: z.literal('heading'),
					text: typed,
					single: z.boolean().optional()
				})
			])
		)
		.max(2_000)
});
