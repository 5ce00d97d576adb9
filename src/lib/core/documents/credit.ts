// What a credit note of a part says: worked out the same way in the browser, while it is typed, and where it is issued.
import { laterOf } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import type { InvoiceFigures } from '../figures/types';
import { parseDecimal, parseMoney } from '../money/decimal';
import { explainTypedNumber, readTypedNumber } from '../money/typed';
import { FieldError } from '../refusals';
import {
	amountOff,
	creditParts,
	creditSheet,
	leftOnLines,
	takesAll,
	type CreditWish,
	type LeftLine
} from '../sheet/credit';
import { taxPointRuleOf } from '../sheet/taxPoint';
import { exchanged, frozenFigures, frozenInput } from './frozen';
import { taxPointRecords } from './taxPoints';
import type { CreditedPart, Frozen, FrozenLeft } from './types';

export interface LeftOfInvoice {
	number: string;
	frozen: Frozen;
	figures: InvoiceFigures;
	/** Of the credit notes that stand. */
	notes: InvoiceFigures[];
	lines: LeftLine[];
	/** Nothing is left: it was credited whole, or its last part was. */
	nothing: boolean;
}

/** What is left of an issued invoice after the credit notes that stand. */
export function leftAfter(number: string, frozen: Frozen, notes: readonly Frozen[]): LeftOfInvoice {
	const figures = frozenFigures(frozen);
	const lines = leftOnLines(
		frozen,
		frozenInput(frozen),
		figures,
		notes.flatMap((note) => note.corrects?.parts ?? [])
	);
	return {
		number,
		frozen,
		figures,
		notes: notes.map(frozenFigures),
		lines,
		nothing:
			notes.some((note) => !note.corrects?.parts) || (notes.length > 0 && takesAll(lines, []))
	};
}

/** What a part is rounded within: the invoice's VAT and deduction, less those of its credit notes. Pence. */
function frozenLeft({ figures, notes }: LeftOfInvoice, all: boolean): FrozenLeft {
	const less = (read: (one: InvoiceFigures) => bigint) =>
		Number(notes.reduce((sum, one) => sum - read(one), read(figures)));
	const groupOf = (one: InvoiceFigures, treatment: string) =>
		one.vat.find((group) => group.treatment === treatment);
	return {
		all,
		groups: figures.vat.map(({ treatment }) => ({
			treatment,
			net: less((one) => groupOf(one, treatment)?.net ?? 0n),
			vat: less((one) => groupOf(one, treatment)?.vat ?? 0n)
		})),
		deduction: figures.cis ? less((one) => one.cis?.deduction ?? 0n) : null
	};
}

export interface CreditWishes {
	/** Null: all that is left. */
	wishes: ((left: readonly LeftLine[]) => CreditWish[]) | null;
	/** Work that is taken back goes back to its job, to be billed again. */
	again: boolean;
}

/**
 * What a credit note of these parts is frozen as. `parts` is null where all of an invoice is taken back at once.
 * @throws FieldError at `quantity.N`, `amount.N`, `off` or `take` where more is asked than is left
 */
export function freezeCredit(
	left: LeftOfInvoice,
	{ wishes, again }: CreditWishes,
	reason: string,
	today: PlainDate
): { frozen: Frozen; figures: InvoiceFigures; parts: CreditedPart[] | null } {
	const { number, frozen: original, figures: whole, notes, lines } = left;
	const { sums: _sums, taxPoints, ...same } = original;
	const frozen: Frozen = {
		...same,
		kind: 'creditNote',
		issueDate: laterOf(today, original.issueDate),
		corrects: {
			number,
			issueDate: original.issueDate,
			reason,
			reverseCharge: whole.decisions.reverseCharge.answer
		}
	};
	let parts: CreditedPart[] | null = null;
	if (wishes !== null || notes.length > 0) {
		const wished = wishes?.(lines) ?? lines.map(({ position }) => ({ position }));
		parts = creditParts(lines, wished, again);
		if (parts.length === 0) throw new FieldError({ take: 'Choose what is credited.' });
		frozen.sheet = creditSheet(original.sheet, lines, parts);
		frozen.corrects = {
			...frozen.corrects!,
			parts,
			left: frozenLeft(left, takesAll(lines, parts))
		};
	}
	const figures = frozenFigures(frozen);
	const { exchange } = original;
	if (exchange)
		frozen.exchange =
			parts && takesAll(lines, parts) ? restOf(exchange, notes) : exchanged(exchange, figures);
	if (figures.total <= 0n)
		throw new FieldError({ take: 'That comes to nothing. A credit note takes something off.' });
	// All credit notes of an invoice together never come to more than it does.
	if (figures.total > notes.reduce((sum, one) => sum - one.total, whole.total))
		throw new FieldError({
			take: 'That is more than is left of the invoice: a line below zero on it has to be credited too.'
		});
	// Taken back at once, it took place when the invoice did; of a part, when its lines did.
	frozen.taxPoints =
		parts === null && taxPoints
			? taxPoints
			: taxPointRecords(
					frozen,
					figures,
					taxPoints?.find(({ date }) => date === original.taxPoint) ?? {
						rule: taxPointRuleOf(original.sheet),
						because: 'invoice'
					},
					() => original.seller.vatRegistered
				);
	const last = frozen.taxPoints.at(-1);
	// Rounded by itself, the last part may be a penny off what is left in pounds.
	if (frozen.exchange && last)
		for (const figure of PENCE)
			last[figure] +=
				frozen.exchange[figure] - frozen.taxPoints.reduce((sum, one) => sum + one[figure], 0);
	return { frozen, figures, parts };
}

type Exchanged = NonNullable<Frozen['exchange']>;
const PENCE = ['net', 'vatCharged', 'vatReverseCharged'] as const;

/** What the credit notes before left of an invoice in pounds. */
function restOf(exchange: Exchanged, notes: readonly InvoiceFigures[]): Exchanged {
	const rest = { ...exchange };
	for (const { sterling } of notes)
		for (const figure of PENCE) rest[figure] -= Number(sterling?.[figure] ?? 0n);
	return rest;
}

/** The boxes of the form, as they are typed: by the line's position. */
export interface TypedCredit {
	way: string;
	off: string;
	take: Record<string, string>;
	quantity: Record<string, string>;
	amount: Record<string, string>;
}

const QUANTITY = { decimals: 4, negative: true };
const AMOUNT = { decimals: 2 };

/** An amount stands before a quantity; a line with neither is taken whole. */
export function readCredit({
	way,
	off,
	take,
	quantity,
	amount
}: TypedCredit): CreditWishes['wishes'] {
	if (way === 'all') return null;
	if (way === 'off')
		return (left) => {
			const read = readTypedNumber(off, AMOUNT);
			if (!read.ok) throw new FieldError({ off: explainTypedNumber(read, 'an amount', AMOUNT) });
			return amountOff(left, parseMoney(read.text)!);
		};
	return () => {
		const wrong: Record<string, string> = {};
		const wishes = Object.keys(take).map((key): CreditWish => {
			const position = Number(key);
			if (amount[key]?.trim()) {
				const read = readTypedNumber(amount[key], AMOUNT);
				if (read.ok) return { position, amount: parseMoney(read.text)! };
				wrong[`amount.${key}`] = explainTypedNumber(read, 'an amount', AMOUNT);
			} else if (quantity[key]?.trim()) {
				const read = readTypedNumber(quantity[key], QUANTITY);
				if (read.ok) return { position, quantity: parseDecimal(read.text)! };
				wrong[`quantity.${key}`] = explainTypedNumber(read, 'how many', QUANTITY);
			}
			return { position };
		});
		if (Object.keys(wrong).length) throw new FieldError(wrong);
		return wishes;
	};
}
