// What the columns of a bank's CSV file hold: by their headings, by what stands in them, and as far as both agree.
import { matchColumns, type Column, type Row } from '../table';
import {
	datePartsOf,
	decimalSignOf,
	isNothing,
	readDate,
	readWrittenAmount,
	type DateOrder,
	type DecimalSign
} from './line';

export type BankField =
	| 'date'
	| 'amount'
	| 'in'
	| 'out'
	| 'direction'
	| 'payer'
	| 'reference'
	| 'text'
	| 'more'
	| 'state'
	| 'currency'
	| 'fee'
	| 'account';

/** Which column is what, as it is shown, changed and remembered. */
export type CsvLayout = Partial<Record<BankField, number>> & {
	/** How its dates are written. */
	dates?: DateOrder;
	/** What stands before the pence. */
	decimal?: DecimalSign;
	/** Its first line is no heading. */
	headless?: boolean;
};

/** What a cell of a column for the direction says: 1 came in, -1 went out. */
const IN = new Set([
	'cr',
	'c',
	'credit',
	'crdt',
	'in',
	'money in',
	'paid in',
	'incoming',
	'received',
	'h',
	'+',
	'credited',
	'deposit'
]);
const OUT = new Set([
	'dr',
	'd',
	'debit',
	'dbit',
	'out',
	'money out',
	'paid out',
	'outgoing',
	'sent',
	's',
	'-',
	'debited',
	'withdrawal'
]);
export function directionOf(cell: string): 1 | -1 | null {
	const word = cell.trim().toLowerCase().replace(/\.$/, '');
	return IN.has(word) ? 1 : OUT.has(word) ? -1 : null;
}

/** What a cell of a column for the state says. */
export function stateOf(cell: string): 'booked' | 'pending' | 'void' | null {
	const word = cell.trim().toLowerCase();
	if (
		/pending|processing|in progress|authori[sz]|uncleared|scheduled|on hold|awaiting|created|pdng|futr/.test(
			word
		)
	)
		return 'pending';
	if (
		/revert|declin|fail|cancel|reject|refus|revers|void|return|expire|refund|unpaid|deleted|blocked|^not /.test(
			word
		)
	)
		return 'void';
	if (
		/complete|booked?|posted|settled|cleared|executed|success|paid|done|processed|received|sent|approved|final|^ok$/.test(
			word
		)
	)
		return 'booked';
	return null;
}

const OTHERS =
	'payee|payer|counter ?party|beneficiary|recipient|sender|other|debtor|creditor|their|merchant';

/** In the order in which they take their columns. */
export const BANK_COLUMNS: (Column<BankField> & { label: string })[] = [
	{
		field: 'date',
		label: 'Date',
		names: [
			'completed date',
			'date completed',
			'completed on',
			'completed',
			'booking date',
			'booked on',
			'booked',
			'posting date',
			'posted date',
			'posted on',
			'date posted',
			'transaction date',
			'date of transaction',
			'entry date',
			'buchungstag',
			'datum',
			'date',
			'value date'
		],
		alone: ['posted', 'when', 'day'],
		not: /start|creat|initiat|due|order|birth|expir|request|authori|statement|from|until|until|updated/
	},
	{
		field: 'direction',
		label: 'In or out',
		names: [
			'dr cr',
			'cr dr',
			'debit credit',
			'credit debit',
			'credit or debit',
			'debit or credit',
			'dr or cr',
			'cr or dr',
			'in out',
			'in or out',
			'direction',
			'credit debit indicator',
			'cdtdbtind',
			'debit credit indicator',
			'soll haben'
		],
		alone: ['d c', 'c d', 'sign', 'indicator', 'dc', 'drcr', 'crdr', 's h'],
		not: /amount|limit/
	},
	{
		field: 'currency',
		label: 'Currency',
		names: ['currency', 'currency code', 'ccy', 'account currency', 'transaction currency', 'curr'],
		not: /original|foreign|local|exchange|rate|target|fee|converted|counter/
	},
	{
		field: 'state',
		label: 'State',
		names: [
			'transaction status',
			'transaction state',
			'payment status',
			'status',
			'booking status'
		],
		alone: ['state']
	},
	{
		field: 'fee',
		label: 'Fee',
		names: [
			'fee',
			'fees',
			'transaction fee',
			'bank charge',
			'bank charges',
			'commission',
			'charges'
		],
		alone: ['charge'],
		not: /currency|type|refund|description/
	},
	{
		field: 'in',
		label: 'Money in',
		names: [
			'money in',
			'paid in',
			'credit amount',
			'amount credited',
			'credit',
			'credits',
			'deposits',
			'deposit',
			'received',
			'receipts',
			'lodgement',
			'lodgements',
			'haben'
		],
		alone: ['in', 'amount in', 'cr', 'in gbp'],
		not: /date|balance|interest|type|card|limit|indicator|reference|name/
	},
	{
		field: 'out',
		label: 'Money out',
		names: [
			'money out',
			'paid out',
			'debit amount',
			'amount debited',
			'debit',
			'debits',
			'withdrawals',
			'withdrawal',
			'spent',
			'payments out',
			'soll'
		],
		alone: ['out', 'amount out', 'dr', 'out gbp'],
		not: /date|balance|interest|type|card|limit|indicator|reference|name|direct/
	},
	{
		field: 'amount',
		label: 'Amount',
		names: [
			'amount gbp',
			'amount in gbp',
			'gbp',
			'amount',
			'transaction amount',
			'net amount',
			'gross',
			'gross amount',
			'value',
			'betrag',
			'total'
		],
		alone: ['sum', 'net', 'money'],
		not: /date|balance|fee|charge|original|foreign|local|instructed|exchange|rate|vat|tax|count|number|type|currency|code/
	},
	{
		field: 'account',
		label: 'Your account',
		names: [
			'account number',
			'account no',
			'iban',
			'account',
			'account id',
			'account name',
			'account holder',
			'account owner',
			'own account'
		],
		not: new RegExp(`${OTHERS}|\\bto\\b|from|type|currency|balance|status`)
	},
	{
		field: 'payer',
		label: 'Who paid, or was paid',
		names: [
			'payer',
			'payer name',
			'paid by',
			'counterparty name',
			'counter party name',
			'counterparty',
			'counter party',
			'name of counterparty',
			'sender name',
			'sender',
			'debtor name',
			'debtor',
			'payee name',
			'payee',
			'beneficiary name',
			'beneficiary',
			'recipient name',
			'recipient',
			'merchant name',
			'merchant',
			'other party',
			'customer name',
			'customer',
			'name'
		],
		alone: ['from', 'who', 'to', 'party'],
		not: /^(your |my |own |the )?account( name| holder| owner)?$|holder|owner|bank name|\b(iban|bic|number|no|date|id|type|sort code|country|e ?mail|city|address|reference|category)\b/
	},
	{
		field: 'text',
		label: 'Text',
		names: [
			'transaction description',
			'description',
			'narrative',
			'narration',
			'particulars',
			'transaction details',
			'details',
			'text',
			'memo',
			'remittance information',
			'purpose',
			'verwendungszweck',
			'information',
			'message'
		],
		not: /date|amount|number|code/
	},
	{
		field: 'reference',
		label: 'Their reference',
		names: [
			'payment reference',
			'customer reference',
			'payer reference',
			'your reference',
			'end to end id',
			'end to end',
			'reference',
			'transaction reference',
			'bank reference'
		],
		alone: ['ref', 'reference number'],
		not: /date|type|amount/
	},
	{
		field: 'more',
		label: 'More text',
		names: [
			'memo',
			'notes',
			'note',
			'further details',
			'additional information',
			'additional details',
			'description',
			'details',
			'narrative',
			'text',
			'message',
			'information',
			'transaction type',
			'payment type',
			'comment'
		],
		alone: ['type', 'extra', 'method'],
		not: /date|amount|number|code/
	}
];

const PLAIN = (text: string) =>
	text
		.toLowerCase()
		.replace(/[^a-z0-9]+/g, ' ')
		.trim();
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
			PLAIN(headings[payer] ?? '') === 'name' &&
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
