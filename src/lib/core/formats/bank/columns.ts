// What the columns of a bank's CSV file hold: by their headings, by what stands in them, and as far as both agree.
import { matchColumns, plain, type Row } from '../table';
import { BANK_COLUMNS, directionOf, type BankField, type CsvLayout } from './headings';
import {
	datePartsOf,
	decimalSignOf,
	isNothing,
	readDate,
	readWrittenAmount,
	type DateOrder
} from './line';

/** So many rows are enough to see what a column holds. */
const LOOKED_AT = 400;

interface Content {
	cells: string[];
	/** Those that say something. */
	filled: string[];
	dates: number;
	amounts: number;
}

function contentOf(rows: readonly Row[], width: number): Content[] {
	const looked = rows.slice(0, LOOKED_AT);
	return Array.from({ length: width }, (_, index) => {
		const cells = looked.map((row) => row.cells[index] ?? '');
		const filled = cells.filter((cell) => !isNothing(cell));
		return {
			cells,
			filled,
			dates: filled.filter(looksLikeDate).length,
			amounts: filled.filter((cell) => looksLikeAmount(cell)).length
		};
	});
}

export const looksLikeDate = (cell: string): boolean =>
	/\d/.test(cell) && (readDate(cell, 'dmy') !== null || readDate(cell, 'mdy') !== null);
/** A number with one or two places, or with a sign or a currency: not a year, nor a reference. */
export const looksLikeMoney = (cell: string): boolean =>
	looksLikeAmount(cell) && /[.,]\d{1,3}\b|[-+£€$¥()]|CR|DR/i.test(cell.trim());
const looksLikeAmount = (cell: string): boolean =>
	/\d/.test(cell) &&
	(readWrittenAmount(cell, '.') !== null || readWrittenAmount(cell, ',') !== null);

const mostly = (count: number, { filled }: Content) =>
	filled.length > 0 && count >= filled.length * 0.8;

/** What the columns hold. `headings` is empty where the file has none. */
export function guessLayout(
	headings: readonly string[],
	rows: readonly Row[],
	separator = ','
): CsvLayout {
	const width = Math.max(
		headings.length,
		...rows.slice(0, LOOKED_AT).map((row) => row.cells.length)
	);
	const columns = contentOf(rows, width);
	const layout: CsvLayout = headings.length
		? matchColumns(headings, BANK_COLUMNS)
		: { headless: true };
	believe(layout, headings, columns);
	byContent(layout, headings, columns);
	const money = [layout.amount, layout.in, layout.out, layout.fee].flatMap((at) =>
		at === undefined ? [] : columns[at]!.filled
	);
	// Where commas separate the cells, no amount has one before its pence.
	const decimal = decimalSignOf(money) ?? (separator === ',' ? '.' : null);
	if (decimal) layout.decimal = decimal;
	if (layout.date !== undefined) layout.dates = orderOf(columns[layout.date]!.filled);
	return layout;
}

/** A heading is believed as far as what stands under it can be what it says. */
function believe(
	layout: CsvLayout,
	headings: readonly string[],
	columns: readonly Content[]
): void {
	const fits: Partial<Record<BankField, (content: Content) => boolean>> = {
		// Some dates are enough: the others are shown as rows that cannot be read.
		date: ({ filled, dates }) => filled.length === 0 || dates > 0,
		amount: ({ filled, amounts }) => filled.length === 0 || amounts > 0,
		in: (one) => one.filled.length === 0 || mostly(one.amounts, one),
		out: (one) => one.filled.length === 0 || mostly(one.amounts, one),
		fee: (one) => mostly(one.amounts, one),
		direction: (one) => mostly(one.filled.filter((cell) => directionOf(cell) !== null).length, one),
		currency: (one) =>
			mostly(one.filled.filter((cell) => /^[a-z]{3}$/i.test(cell.trim())).length, one),
		state: (one) =>
			mostly(one.filled.filter((cell) => /^[a-z][a-z _-]{1,30}$/i.test(cell.trim())).length, one)
	};
	for (const [field, check] of Object.entries(fits) as [BankField, (one: Content) => boolean][])
		if (layout[field] !== undefined && !check(columns[layout[field]!]!)) delete layout[field];
	if (layout.in !== undefined && layout.out !== undefined) delete layout.amount;
	else if (layout.amount !== undefined) {
		delete layout.in;
		delete layout.out;
	}
	// What a net amount is, the fee is off already.
	if (layout.amount !== undefined && /\bnet\b/i.test(headings[layout.amount] ?? ''))
		delete layout.fee;
	// The same name in every row is the owner's own, whatever the column is called.
	const payer = layout.payer;
	if (payer !== undefined) {
		const names = new Set(columns[payer]!.cells.map((cell) => cell.trim().toLowerCase()));
		if (
			plain(headings[payer] ?? '') === 'name' &&
			columns[payer]!.cells.length > 2 &&
			names.size === 1
		) {
			delete layout.payer;
			layout.account ??= payer;
		}
	}
}

/** What the headings did not say is found by what stands in the columns. */
function byContent(
	layout: CsvLayout,
	headings: readonly string[],
	columns: readonly Content[]
): void {
	const taken = () =>
		new Set(
			BANK_COLUMNS.flatMap(({ field }) => (layout[field] === undefined ? [] : [layout[field]]))
		);
	const free = (fits: (one: Content, index: number) => boolean) =>
		columns.findIndex((one, index) => !taken().has(index) && fits(one, index));
	const put = (field: BankField, at: number) => {
		if (at >= 0) layout[field] = at;
	};
	if (layout.date === undefined)
		put(
			'date',
			free((one) => mostly(one.dates, one))
		);
	if (layout.amount === undefined && layout.in === undefined && layout.out === undefined)
		moneyByContent(layout, headings, columns);
	if (layout.direction === undefined && layout.amount !== undefined) {
		const says = ({ filled }: Content, index: number) =>
			filled.length > 0 &&
			filled.every((cell) => directionOf(cell) !== null) &&
			(!headings.length ||
				/type|dr|cr|debit|credit|direction|sign|flow|in|out|ind/i.test(headings[index] ?? ''));
		// What would only be more text is looked at too: `Type` may say one as well as the other.
		if (layout.more !== undefined && says(columns[layout.more]!, layout.more)) {
			layout.direction = layout.more;
			delete layout.more;
		} else put('direction', free(says));
	}
	if (layout.text === undefined && layout.payer === undefined && layout.reference === undefined) {
		const words = columns
			.map((one, index) => ({
				index,
				length: one.filled.join('').replace(/[^a-z]/gi, '').length
			}))
			.filter(({ index, length }) => length > 0 && !taken().has(index))
			.sort((a, b) => b.length - a.length);
		if (words[0]) layout.text = words[0].index;
		if (!headings.length && words[1]) layout.more = words[1].index;
	}
}

/** The columns of money of a file whose headings say nothing: the balance tells which is which. */
function moneyByContent(
	layout: CsvLayout,
	headings: readonly string[],
	columns: readonly Content[]
): void {
	const money = columns
		.map((one, index) => ({ one, index }))
		.filter(
			({ one, index }) =>
				index !== layout.date &&
				!mostly(one.dates, one) &&
				mostly(one.amounts, one) &&
				one.filled.some(looksLikeMoney) &&
				!/balance|saldo|rate|vat|tax|date/i.test(headings[index] ?? '')
		);
	const pence = (at: number) =>
		columns[at]!.cells.map((cell) =>
			isNothing(cell)
				? 0n
				: (readWrittenAmount(cell, decimalSignOf(columns[at]!.filled) ?? undefined)?.amount ?? 0n)
		);
	/** Whether a balance goes up by one column and down by the other, read from either end. */
	const explains = (balance: number, up: number, down: number | null): boolean => {
		const after = pence(balance);
		const came = pence(up);
		const went = down === null ? null : pence(down);
		const moved = came.map((one, n) => one - (went ? (went[n]! < 0n ? -went[n]! : went[n]!) : 0n));
		const steps = after
			.slice(1)
			.map((one, n) => [one - after[n]!, moved[n + 1]!, moved[n]!] as const);
		return (
			steps.length > 0 &&
			(steps.every(([step, later]) => step === later) ||
				steps.every(([step, , earlier]) => -step === earlier))
		);
	};
	for (const { index: balance } of money)
		for (const { index: up } of money) {
			if (up === balance) continue;
			if (explains(balance, up, null)) {
				layout.amount = up;
				return;
			}
			for (const { index: down } of money)
				if (down !== up && down !== balance && explains(balance, up, down)) {
					layout.in = up;
					layout.out = down;
					return;
				}
		}
	const full = money.filter(({ one }) => one.filled.length === one.cells.length);
	// Two that take turns are money in and money out, and nothing says which: that is asked.
	if (full.length > 0) layout.amount = full[0]!.index;
	else if (money.length === 1) layout.amount = money[0]!.index;
}

/** In which order the dates of a column are written; day first where all could be either. */
function orderOf(cells: readonly string[]): DateOrder {
	const parts = cells.map(datePartsOf).filter((one) => one !== null);
	if (parts.length > 0 && parts.every(([a]) => a > 31)) return 'ymd';
	const dayFirst = parts.filter(([a, b]) => a > 12 && b <= 12).length;
	const monthFirst = parts.filter(([a, b]) => b > 12 && a <= 12).length;
	return monthFirst > dayFirst ? 'mdy' : 'dmy';
}
