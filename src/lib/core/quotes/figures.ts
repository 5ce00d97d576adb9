// What a quote comes to, as chosen (docs/figures.md 8): one option of each group, the extras that are ticked, and the range.
import { computeInvoice } from '../figures/invoice';
import {
	FiguresError,
	type Discount,
	type InvoiceFigures,
	type InvoiceInput,
	type LineInput
} from '../figures/types';
import { percentOf } from '../money/decimal';
import type { Minor } from '../money/types';
import type { Regime } from '../regimes/types';

export interface Choice {
	group: string;
	option: string;
}

export interface QuoteLine extends LineInput {
	/** One option of a group, of which one is taken. */
	choice: Choice | null;
	/** It may be added. */
	extra: boolean;
}

export interface Chosen {
	/** The option taken of each group; of others the one that comes first. */
	options: Readonly<Record<string, string>>;
	/** Lines that are extras and are in, by their index from 0. */
	extras: readonly number[];
}

export interface QuoteInput extends Omit<InvoiceInput, 'lines' | 'reverseCharge'> {
	lines: QuoteLine[];
	chosen: Chosen;
	/** Of the total with VAT; null where none is asked. */
	deposit: Discount | null;
}

export interface QuoteFigures {
	/** The lines that are in, by their index. */
	included: number[];
	figures: InvoiceFigures;
	/** Null where that choice cannot be computed. */
	lowest: Minor | null;
	highest: Minor | null;
	deposit: Minor;
	/** Each line as it stands, chosen or not: before any discount on the whole. */
	lines: InvoiceFigures['lines'];
}

/** The groups in their order, each with its options in theirs. */
export function groupsOf(lines: readonly Pick<QuoteLine, 'choice'>[]): Map<string, string[]> {
	const groups = new Map<string, string[]>();
	for (const { choice } of lines) {
		if (!choice) continue;
		const options = groups.get(choice.group) ?? [];
		if (!options.includes(choice.option)) options.push(choice.option);
		groups.set(choice.group, options);
	}
	return groups;
}

/**
 * Computes a quote as it is chosen. Amounts are minor units.
 * @throws FiguresError naming the field, as `docs/figures.md` 8 has it
 */
export function computeQuote(input: QuoteInput, regime: Regime): QuoteFigures {
	const { lines, chosen } = input;
	const whole = computeInvoice(invoiceOf({ ...input, discount: null, retention: null }), regime);
	const groups = groupsOf(lines);
	for (const [group, option] of Object.entries(chosen.options))
		if (!groups.get(group)?.includes(option))
			throw new FiguresError('expected an option of a group of this quote', 'chosen.options');
	for (const [place, index] of chosen.extras.entries())
		if (!lines[index]?.extra || chosen.extras.indexOf(index) !== place)
			throw new FiguresError('expected an extra, once', `chosen.extras.${place}`);

	const included = chosenLines(lines, groups, chosen);
	if (included.length === 0) throw new FiguresError('no line is in', 'chosen');
	const figures = computeLines(input, included, regime);
	const range = (pick: (a: Minor, b: Minor) => boolean, isIn: (net: Minor) => boolean) =>
		totalOf(input, rangeLines(input, whole, groups, pick, isIn), regime);
	return {
		included,
		figures,
		lowest: range(
			(a, b) => a < b,
			(net) => net < 0n
		),
		highest: range(
			(a, b) => a > b,
			(net) => net > 0n
		),
		deposit: depositOf(input.deposit, figures.total),
		lines: whole.lines
	};
}

function chosenLines(
	lines: readonly QuoteLine[],
	groups: ReadonlyMap<string, readonly string[]>,
	{ options, extras }: Chosen
): number[] {
	const isIn = ({ choice, extra }: QuoteLine, index: number) => {
		if (extra) return extras.includes(index);
		if (!choice) return true;
		const taken = Object.hasOwn(options, choice.group)
			? options[choice.group]
			: groups.get(choice.group)![0];
		return choice.option === taken;
	};
	return lines.flatMap((line, index) => (isIn(line, index) ? [index] : []));
}

/** The lines of the option of each group that is taken before the others, and of the extras that are in. */
function rangeLines(
	{ lines }: QuoteInput,
	whole: InvoiceFigures,
	groups: ReadonlyMap<string, readonly string[]>,
	before: (a: Minor, b: Minor) => boolean,
	isIn: (net: Minor) => boolean
): number[] {
	const options: Record<string, string> = {};
	for (const [group, names] of groups) {
		const net = (option: string) =>
			lines.reduce(
				(sum, { choice }, index) =>
					choice?.group === group && choice.option === option ? sum + whole.lines[index]!.net : sum,
				0n
			);
		options[group] = names.reduce((best, name) => (before(net(name), net(best)) ? name : best));
	}
	const extras = lines.flatMap(({ extra }, index) =>
		extra && isIn(whole.lines[index]!.net) ? [index] : []
	);
	return chosenLines(lines, groups, { options, extras });
}

function totalOf(input: QuoteInput, included: number[], regime: Regime): Minor | null {
	if (included.length === 0) return null;
	try {
		return computeLines(input, included, regime).total;
	} catch (error) {
		if (error instanceof FiguresError) return null;
		throw error;
	}
}

/** Errors name a line by its index in the quote. */
function computeLines(input: QuoteInput, included: readonly number[], regime: Regime) {
	try {
		return computeInvoice(invoiceOf(input, included), regime);
	} catch (error) {
		if (!(error instanceof FiguresError)) throw error;
		const path = error.path.replace(/^lines\.(\d+)/, (_, n) => `lines.${included[Number(n)]}`);
		throw new FiguresError(error.message, path);
	}
}

/** The invoice of some lines of a quote, or of all as they stand. */
export function invoiceOf(input: QuoteInput, included?: readonly number[]): InvoiceInput {
	const { lines, chosen: _chosen, deposit: _deposit, ...document } = input;
	const plain = ({ choice: _choice, extra: _extra, ...line }: QuoteLine): LineInput => line;
	return {
		...document,
		reverseCharge: null,
		lines: included ? included.map((index) => plain(lines[index]!)) : lines.map(plain)
	};
}

function depositOf(asked: Discount | null, total: Minor): Minor {
	if (!asked) return 0n;
	const fits = total >= 0n && (!('amount' in asked) || asked.amount <= total);
	if (!fits) throw new FiguresError('expected at most what the quote comes to', 'deposit');
	return 'percent' in asked ? percentOf(total, asked.percent) : asked.amount;
}
