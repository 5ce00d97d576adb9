// A bank statement as CSV: whatever stands above its headings, columns in any order, rows that are none left out with their reason.
import type { Minor } from '../../money/types';
import { matchColumns, TableError, type Records, type Row } from '../table';
import { guessLayout, looksLikeDate, looksLikeMoney } from './columns';
import { BANK_COLUMNS, directionOf, stateOf, type BankField, type CsvLayout } from './headings';
import {
	isNothing,
	joined,
	readDate,
	readWrittenAmount,
	saysTakenBack,
	type BankLine,
	type LeftOut
} from './line';

export interface CsvStatement {
	headings: string[];
	layout: CsvLayout;
	/** A few rows as they stand. */
	sample: string[][];
	account: string;
	currency: string;
	lines: BankLine[];
	leftOut: LeftOut[];
}

/** So far down headings are looked for. */
const DEEPEST = 40;

/** @throws TableError */
export function readCsvStatement(
	{ rows: all, separator }: Records,
	given: CsvLayout | null
): CsvStatement {
	if (all.length === 0) throw new TableError('The file is empty.');
	const { headings, rows, above } = given?.headless ? bodyWithout(all) : bodyOf(all, given);
	const layout = given ?? guessLayout(headings, rows, separator);
	if (rows.length === 0)
		throw new TableError('There is a heading and nothing under it, or not even that.');
	if (layout.date === undefined)
		throw new TableError('No column holds dates. Is this the list of movements?');
	if (layout.amount === undefined && layout.in === undefined && layout.out === undefined)
		throw new TableError(
			'No column holds what came in or went out. Is this the list of movements?'
		);
	const about = factsAbove(above);
	const named = layout.amount ?? layout.in ?? layout.out!;
	const currency = currencyIn(headings[named] ?? '') || about.currency;
	const outIsMinus = writesOutNegative(layout, rows);
	const read = rows.map((row) => readRow(row, layout, outIsMinus));
	const lines = read.flatMap((one) => ('why' in one ? [] : one.lines));
	const accounts = new Set(lines.map((line) => line.account));
	const account = accounts.size === 1 && [...accounts][0] ? [...accounts][0]! : about.account;
	return {
		headings,
		layout,
		sample: rows.slice(0, 5).map((row) => row.cells),
		account,
		currency,
		lines: lines.map((line) => ({
			...line,
			account: line.account || account,
			currency: line.currency || currency
		})),
		leftOut: read.flatMap((one) => ('why' in one ? [one] : []))
	};
}

interface Body {
	headings: string[];
	rows: Row[];
	above: Row[];
}

/** A row that moves money: a day, and a sum. */
const isMovement = ({ cells }: Row): boolean =>
	cells.some(looksLikeDate) && cells.some(looksLikeMoney);

/** The headings are the first row that names a day and a sum; without one, what stands right above the first movement. */
function bodyOf(all: readonly Row[], given: CsvLayout | null): Body {
	const upTo = all.slice(0, DEEPEST);
	const named = upTo.findIndex(({ cells }) => {
		if (cells.some(looksLikeDate)) return false;
		const found = matchColumns(cells, BANK_COLUMNS);
		return (
			found.date !== undefined &&
			(found.amount !== undefined || found.in !== undefined || found.out !== undefined)
		);
	});
	if (named >= 0) return split(all, named);
	const first = upTo.findIndex(isMovement);
	if (first < 0) return split(all, 0);
	const before = all[first - 1];
	const wide = all[first]!.cells.length;
	const heads =
		before !== undefined &&
		before.cells.filter(Boolean).length > 1 &&
		Math.abs(before.cells.length - wide) < 2 &&
		!before.cells.some((cell) => looksLikeDate(cell) || looksLikeMoney(cell));
	if (heads) return split(all, first - 1);
	return given && !given.headless ? split(all, 0) : bodyWithout(all);
}

const split = (all: readonly Row[], at: number): Body => ({
	headings: all[at]!.cells,
	rows: all.slice(at + 1),
	above: all.slice(0, at)
});

/** A file whose first movement stands under no heading. */
function bodyWithout(all: readonly Row[]): Body {
	const first = Math.max(0, all.slice(0, DEEPEST).findIndex(isMovement));
	return { headings: [], rows: all.slice(first), above: all.slice(0, first) };
}

/** Account and currency as lines above the headings name them. */
function factsAbove(rows: readonly Row[]): { account: string; currency: string } {
	let account = '';
	let currency = '';
	for (const { cells } of rows) {
		const words = cells.filter(Boolean).join(' ');
		if (!account)
			account =
				/\b([A-Z]{2}\d{2}(?: ?[A-Z0-9]{4}){2,7}(?: ?[A-Z0-9]{1,4})?)\b/
					.exec(words)?.[1]
					?.replace(/ /g, '') ??
				(/account|a\/c|konto/i.test(words) ? (/\b(\d{8,12})\b/.exec(words)?.[1] ?? '') : '');
		if (!currency)
			currency = /\b(?:currency|ccy)\W+([A-Z]{3})\b/i.exec(words)?.[1]?.toUpperCase() ?? '';
	}
	return { account, currency };
}

/** `GBP` of `Amount (GBP)`, `Paid in £`. */
function currencyIn(heading: string): string {
	const sign = readWrittenAmount(`${/[£€$¥]/.exec(heading)?.[0] ?? ''}1`)?.currency ?? '';
	const code = /\b([A-Z]{3})\b/.exec(heading.replace(/\b(NET|SUM|OUT|FEE|VAT)\b/g, ''))?.[1] ?? '';
	return sign || (readWrittenAmount(`${code}1`)?.currency ?? '');
}

type ReadRow = LeftOut | { lines: BankLine[] };

function readRow({ line: row, cells }: Row, layout: CsvLayout, outIsMinus: boolean): ReadRow {
	const cell = (field: BankField) => {
		const at = layout[field];
		const text = at === undefined ? '' : (cells[at] ?? '').trim();
		return text;
	};
	const out = (why: string): LeftOut => ({ row, why });
	const state =
		layout.state === undefined || cell('state') === '' ? 'booked' : stateOf(cell('state'));
	if (state === 'void') return out(`The bank says “${cell('state')}”: no money moved.`);
	if (state === null)
		return out(`The bank says “${cell('state')}”, and it is not known what that means.`);
	let date = readDate(cell('date'), layout.dates ?? 'dmy');
	// What is not booked yet has no day of booking: any other day of its row will do.
	if (date === null && state === 'pending')
		date =
			cells
				.map((one) => (looksLikeDate(one) ? readDate(one, layout.dates ?? 'dmy') : null))
				.find((one) => one !== null) ?? null;
	const words = [cell('text'), cell('more')];
	if (
		/^(opening|closing) balance|balance (brought|carried) (forward|down)|^(b\/f|c\/f)$/i.test(
			words.join(' ').trim()
		)
	)
		return out('A balance, no movement.');
	if (date === null)
		return out(
			cell('date') === ''
				? 'It has no date.'
				: `“${cell('date').slice(0, 30)}” is no date that can be read.`
		);
	const amount = amountOf(cell, layout, outIsMinus);
	if ('why' in amount) return out(amount.why);
	const fee =
		layout.fee === undefined || isNothing(cell('fee'))
			? null
			: readWrittenAmount(cell('fee'), layout.decimal);
	if (layout.fee !== undefined && !isNothing(cell('fee')) && !fee)
		return out(`“${cell('fee').slice(0, 30)}” is no fee that can be read.`);
	const taken = fee ? (fee.amount < 0n ? fee.amount : -fee.amount) : 0n;
	if (amount.amount === 0n && taken === 0n) return out('It moves nothing (0.00).');
	const text = joined([...words, ...(cell('text') || cell('more') ? [] : [cell('reference')])]);
	const common = {
		row,
		account: cell('account').slice(0, 60),
		date,
		currency: cell('currency').toUpperCase() || amount.currency,
		reference: cell('reference').replace(/\s+/g, ' ').slice(0, 140),
		pending: state === 'pending',
		payer: cell('payer').replace(/\s+/g, ' ').slice(0, 140)
	};
	return {
		lines: [
			...(amount.amount === 0n
				? []
				: [{ ...common, amount: amount.amount, text, reversal: saysTakenBack(words.join(' ')) }]),
			...(taken === 0n
				? []
				: [{ ...common, amount: taken, text: joined(['Fee', text]), payer: '', reversal: false }])
		]
	};
}

/** What moved, in or out, or why that cannot be said. */
function amountOf(
	cell: (field: BankField) => string,
	layout: CsvLayout,
	outIsMinus: boolean
): { amount: Minor; currency: string } | { why: string } {
	const wrong = (typed: string) => ({
		why: `“${typed.slice(0, 30)}” is no amount that can be read.`
	});
	const read = (field: BankField) =>
		isNothing(cell(field))
			? { amount: 0n, currency: '' }
			: readWrittenAmount(cell(field), layout.decimal);
	if (layout.amount === undefined) {
		const came = read('in');
		const went = read('out');
		if (!came) return wrong(cell('in'));
		if (!went) return wrong(cell('out'));
		if (isNothing(cell('in')) && isNothing(cell('out'))) return { why: 'It has no amount.' };
		if (came.amount !== 0n && went.amount !== 0n)
			return { why: 'Money came in and went out in the same row: it cannot be told which counts.' };
		// Money out is written with a minus by some, and a minus there means money back with the others.
		const off = outIsMinus ? -went.amount : went.amount;
		return { amount: came.amount - off, currency: came.currency || went.currency };
	}
	if (isNothing(cell('amount'))) return { why: 'It has no amount.' };
	const amount = read('amount');
	if (!amount) return wrong(cell('amount'));
	if (layout.direction === undefined) return amount;
	if (cell('direction') === '')
		return { why: 'It does not say whether money came in or went out.' };
	const way = directionOf(cell('direction'));
	if (way === null)
		return {
			why: `“${cell('direction').slice(0, 30)}” does not say whether money came in or went out.`
		};
	if (way > 0 && amount.amount < 0n)
		return {
			why: `Its amount is below nothing, yet “${cell('direction')}” says that money came in.`
		};
	return { ...amount, amount: way > 0 || amount.amount < 0n ? amount.amount : -amount.amount };
}

/** Whether every amount that went out is written with a minus. */
function writesOutNegative({ out, decimal }: CsvLayout, rows: readonly Row[]): boolean {
	if (out === undefined) return false;
	const read = rows.flatMap(({ cells }) => {
		const cell = cells[out] ?? '';
		const amount = isNothing(cell) ? null : readWrittenAmount(cell, decimal);
		return amount && amount.amount !== 0n ? [amount.amount] : [];
	});
	return read.length > 0 && read.every((amount) => amount < 0n);
}
