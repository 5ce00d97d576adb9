// What a purchase comes to: what was paid, the VAT of it that comes back, what of it is private, and what it costs in the end.
import { and, eq, gte, isNull, sql } from 'drizzle-orm';
import { mileageCost, taxYearStart } from '../../../core/costs/mileage';
import {
	divideRounded,
	formatMoney,
	parseDecimal,
	parseMoney,
	powerOfTen
} from '../../../core/money/decimal';
import { FieldError } from '../../../core/refusals';
import type { Reader } from '../../db/connection';
import { purchases } from '../../db/schema';
import { typedNumber, day, required, text, typedPercent } from '../business/fields';
import { z } from 'zod';
import { COST_CATEGORIES, PURCHASE_KINDS } from '../../../core/costs/types';

export const money = (what: string) => typedNumber(what, { decimals: 2 });

export type Purchase = typeof purchases.$inferSelect;

export const purchaseFields = z.object({
	kind: z.enum(PURCHASE_KINDS, 'Choose what it is.').default('bill'),
	supplier: text(200),
	number: text(60),
	description: required(300, 'What was it?'),
	date: day.refine((value) => value !== '', 'Which day?'),
	paidOn: day,
	/** What was paid in all, with VAT. */
	gross: money('what it came to'),
	/** Of it VAT; empty: none. */
	vat: money('the VAT on it'),
	reclaim: z.boolean().default(false),
	privateShare: typedPercent('a percentage'),
	category: z.enum(COST_CATEGORIES, 'Choose what it is for.'),
	centre: text(60),
	miles: typedNumber('how many miles', { decimals: 2 }),
	jobId: z.number().int().positive().nullable().catch(null).default(null),
	/** It is charged to the customer of its job, with so much on top. */
	chargeable: z.boolean().default(false),
	markUp: typedPercent('a mark-up', 1000),
	/** It is another bill than the one that looks the same. */
	another: z.boolean().default(false)
});
export type Values = z.output<typeof purchaseFields>;

/** The amounts of a cost, in pence; a supplier's credit is below zero. @throws FieldError */
export function amountsOf(values: Values, before: string): { net: number; vat: number } {
	if (values.kind === 'mileage') {
		if (values.miles === '' || Number(values.miles) <= 0)
			throw new FieldError({ miles: 'How many miles?' });
		return { net: Number(mileageCost(values.miles, before)), vat: 0 };
	}
	const gross = parseMoney(values.gross) ?? 0n;
	const vat = parseMoney(values.vat) ?? 0n;
	const problems: Record<string, string> = {};
	if (gross <= 0n) problems.gross = 'What did it come to, with VAT?';
	else if (gross > 10_000_000_00n) problems.gross = 'That is more than can be.';
	// A fifth on top is a sixth of the whole; pence are rounded by each line of their bill.
	else if (vat * 6n > gross + 60n) problems.vat = 'VAT is at most a sixth of what is paid in all.';
	if (Object.keys(problems).length) throw new FieldError(problems);
	const sign = values.kind === 'credit' ? -1 : 1;
	return { net: sign * Number(gross - vat), vat: sign * Number(vat) };
}

/** Miles of the same tax year before a day, for the rate: rows of the same day by their order. */
export function milesBefore(db: Reader, date: string, id: number | null): string {
	const rows = db
		.select({ miles: purchases.miles })
		.from(purchases)
		.where(
			and(
				eq(purchases.kind, 'mileage'),
				isNull(purchases.removedAt),
				gte(purchases.date, taxYearStart(date)),
				sql`(${purchases.date}, ${purchases.id}) < (${date}, ${id ?? Number.MAX_SAFE_INTEGER})`
			)
		)
		.all();
	const hundredths = rows.reduce((sum, { miles }) => {
		const read = parseDecimal(miles);
		return read ? sum + read.units * powerOfTen(2 - read.scale) : sum;
	}, 0n);
	return formatMoney(hundredths);
}

/** What a cost is to its owner, in pence: with the VAT that cannot be reclaimed, without the private share. */
export function ownCost(row: Pick<Purchase, 'net' | 'vat' | 'reclaim' | 'privateShare'>): number {
	const whole = BigInt(row.net) + (row.reclaim ? 0n : BigInt(row.vat));
	const business = whole - privatePart(whole, row.privateShare);
	return Number(business);
}

/** The VAT of it that is reclaimed, in pence. */
export const inputTax = (row: Pick<Purchase, 'vat' | 'reclaim' | 'privateShare'>): number =>
	row.reclaim ? Number(BigInt(row.vat) - privatePart(BigInt(row.vat), row.privateShare)) : 0;

function privatePart(amount: bigint, percent: string): bigint {
	const read = percent === '' ? null : parseDecimal(percent);
	return read ? divideRounded(amount * read.units, 100n * powerOfTen(read.scale)) : 0n;
}
