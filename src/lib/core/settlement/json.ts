// The JSON forms of settlement, lateness and statement, in and out.
import { z } from 'zod';
import { amount, amountAboveZero, optional, percentage, plainDate } from '../figures/forms';
import { parseOrThrow } from '../figures/input';
import { formatMoney } from '../money/decimal';
import { halfYearOf, writeRate } from '../regimes/gb/latePayment';
import type { Lateness, LatenessInput } from './lateness';
import { ACCOUNT_TYPES, canBeSettled, type Statement, type StatementInput } from './statement';
import { ENTRY_TYPES, type Settlement, type SettlementInput } from './types';

const settlementInput = z
	.strictObject({
		total: amount,
		deduction: optional(amount),
		entries: z.array(
			z.strictObject({
				date: plainDate,
				type: z.enum(ENTRY_TYPES),
				amount: amountAboveZero,
				withheld: optional(amount),
				deduction: optional(amount)
			})
		)
	})
	.refine((input) => input.deduction === null || input.deduction <= input.total, {
		message: 'expected a deduction from 0 to the total',
		path: ['deduction']
	});

/** @throws FiguresError with the path of the first thing that is wrong. */
export function readSettlementInput(value: unknown): SettlementInput {
	return parseOrThrow(settlementInput, value);
}

export function writeSettlement(settlement: Settlement) {
	return {
		entries: settlement.entries.map(({ withheld, outstanding }) => ({
			withheld: formatMoney(withheld),
			outstanding: formatMoney(outstanding)
		})),
		cash: formatMoney(settlement.cash),
		withheld: formatMoney(settlement.withheld),
		outstanding: formatMoney(settlement.outstanding),
		overpaid: formatMoney(settlement.overpaid)
	};
}

const referenceRates = z
	.array(z.strictObject({ from: plainDate, rate: percentage }))
	.refine(
		(rates) =>
			rates.every(({ from }) => halfYearOf(from) === from) &&
			new Set(rates.map(({ from }) => from)).size === rates.length,
		'expected one rate for each half year, from 1 January or 1 July'
	);

const latenessInput = z
	.strictObject({
		total: amount,
		due: plainDate,
		asOf: plainDate,
		business: z.boolean(),
		payments: optional(z.array(z.strictObject({ date: plainDate, amount }))),
		referenceRates: optional(referenceRates)
	})
	.refine(({ business, referenceRates }) => !business || referenceRates !== null, {
		message: 'expected the reference rates',
		path: ['referenceRates']
	});

/** @throws FiguresError with the path of the first thing that is wrong. */
export function readLatenessInput(value: unknown): LatenessInput {
	const { payments, referenceRates, ...input } = parseOrThrow(latenessInput, value);
	return { ...input, payments: payments ?? [], referenceRates: referenceRates ?? [] };
}

export function writeLateness(result: Lateness) {
	return {
		applies: result.applies,
		daysLate: result.daysLate,
		rate: result.rate && writeRate(result.rate),
		outstanding: formatMoney(result.outstanding),
		interest: formatMoney(result.interest),
		compensation: formatMoney(result.compensation)
	};
}

const statementInput = z
	.strictObject({
		style: z.enum(['openItems', 'activity']),
		asOf: plainDate,
		from: optional(plainDate),
		ageing: optional(z.enum(['dueDate', 'issueDate'])),
		items: z.array(
			z.strictObject({
				id: z.string(),
				type: z.enum(ACCOUNT_TYPES),
				date: plainDate,
				due: optional(plainDate),
				amount: amountAboveZero,
				against: optional(z.string())
			})
		)
	})
	.superRefine(({ style, from, ageing, items }, context) => {
		const refuse = (message: string, ...path: (string | number)[]) =>
			context.addIssue({ code: 'custom', message, path });
		if (style === 'openItems' && from !== null)
			refuse('expected no first day on a statement of open items', 'from');
		if (style === 'activity' && from === null) refuse('expected the first day', 'from');
		const settled = new Set<string>();
		for (const [index, { id, type, due }] of items.entries()) {
			if (!canBeSettled(type)) {
				if (due !== null)
					refuse('expected a due date on invoices and charges only', 'items', index, 'due');
				continue;
			}
			if (settled.has(id))
				refuse('expected an id no other invoice or charge has', 'items', index, 'id');
			settled.add(id);
			if (due === null && ageing !== 'issueDate')
				refuse('expected a due date', 'items', index, 'due');
		}
		for (const [index, { type, against }] of items.entries()) {
			if (against === null) continue;
			if (canBeSettled(type) || type === 'refund')
				refuse('expected on what settles something only', 'items', index, 'against');
			else if (!settled.has(against))
				refuse('expected the id of an invoice or charge', 'items', index, 'against');
		}
	});

/** @throws FiguresError with the path of the first thing that is wrong. */
export function readStatementInput(value: unknown): StatementInput {
	const { ageing, asOf, from, items } = parseOrThrow(statementInput, value);
	return { asOf, from, ageing: ageing ?? 'dueDate', items };
}

export function writeStatement({ rows, opening, balance, ageing }: Statement) {
	const column = opening === null ? 'left' : 'balance';
	return {
		rows: rows.map(({ item, amount, left }) => ({
			id: item.id,
			date: item.date,
			amount: formatMoney(amount),
			[column]: formatMoney(left)
		})),
		...(opening === null ? {} : { opening: formatMoney(opening) }),
		balance: formatMoney(balance),
		ageing: Object.fromEntries(Object.entries(ageing).map(([age, sum]) => [age, formatMoney(sum)]))
	};
}
