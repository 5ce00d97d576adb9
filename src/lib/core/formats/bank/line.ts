// A line of a bank statement, and how banks write its date and its amount.
import { isPlainDate } from '../../calendar/queries';
import type { PlainDate } from '../../calendar/types';
import { parseMoney } from '../../money/decimal';
import type { Minor } from '../../money/types';

export interface BankLine {
	/** Where it stands in the file: the line of a CSV file, the how-manieth of the others. */
	row: number;
	/** IBAN or account number as the file gives it; empty where it gives none. */
	account: string;
	date: PlainDate;
	/** Pence; above zero came in, below went out. */
	amount: Minor;
	/** ISO 4217; empty where the file names none. */
	currency: string;
	/** Everything written about it. */
	text: string;
	/** Who paid, where the file says so apart. */
	payer: string;
	/** What the payer gave as reference, where the file says so apart. */
	reference: string;
	/** Not booked yet: it may still change or go. */
	pending: boolean;
	/** Whether the bank says that it takes an earlier one back. */
	reversal: boolean;
}

export interface LeftOut {
	row: number;
	why: string;
}

/** What the readers of a format find. */
export interface Statements {
	account: string;
	currency: string;
	lines: BankLine[];
	leftOut: LeftOut[];
}

const MONTHS = [
	'january',
	'february',
	'march',
	'april',
	'may',
	'june',
	'july',
	'august',
	'september',
	'october',
	'november',
	'december'
];

/** 1 to 12 for `Nov`, `Sept`, `November`; 0 for what is no month. */
const monthOf = (word: string): number => {
	const small = word.toLowerCase();
	return small.length < 3
		? 0
		: MONTHS.findIndex((month) => month.startsWith(small === 'sept' ? 'sep' : small)) + 1;
};

export type DateOrder = 'dmy' | 'mdy' | 'ymd';

const WEEKDAY = /^(mon|tue|wed|thu|fri|sat|sun)[a-z]*\.?,?\s+/i;
const TIME =
	/(?:T|,?\s+(?:at\s+)?)\d{1,2}[:.]\d{2}(?:[:.]\d{2}(?:[.,]\d+)?)?\s*(?:[ap]m)?\s*(?:z|[+-]\d{2}:?\d{2}|\(?[a-z]{2,4}\)?)?$/i;

/** A date without its weekday and its time. */
const bare = (typed: string) => typed.trim().replace(WEEKDAY, '').replace(TIME, '').trim();

/** The three numbers of a date as they stand, for finding out their order; null where it says its order itself. */
export function datePartsOf(typed: string): [number, number, number] | null {
	const match = /^(\d{1,4})[\s./-]+(\d{1,2})[\s./-]+(\d{1,4})$/.exec(bare(typed));
	return match && [Number(match[1]), Number(match[2]), Number(match[3])];
}

/**
 * A date as banks write it: 24/11/2026, 24 Nov 26, Nov 24, 2026, 24Nov2026, Tue 24 November 2026, 2026-11-24, 20261124, with a time behind it or not.
 * `order` counts only where the date itself does not say it.
 */
export function readDate(typed: string, order: DateOrder): PlainDate | null {
	const text = bare(typed);
	const compact = /^(\d{4})(\d{2})(\d{2})$/.exec(text);
	if (compact && /^(19|20)/.test(text)) return dateOf(compact[1]!, compact[2]!, compact[3]!);
	const dayFirst =
		/^(\d{1,2})(?:st|nd|rd|th)?[\s./-]*([a-z]{3,9})\.?,?[\s./-]*(\d{4}|\d{2})$/i.exec(text);
	if (dayFirst) return dateOf(dayFirst[3]!, String(monthOf(dayFirst[2]!)), dayFirst[1]!);
	const monthFirst =
		/^([a-z]{3,9})\.?[\s./-]*(\d{1,2})(?:st|nd|rd|th)?,?[\s./-]+(\d{4}|\d{2})$/i.exec(text);
	if (monthFirst) return dateOf(monthFirst[3]!, String(monthOf(monthFirst[1]!)), monthFirst[2]!);
	const yearFirst = /^(\d{4})[\s./-]*([a-z]{3,9})[\s./-]*(\d{1,2})$/i.exec(text);
	if (yearFirst) return dateOf(yearFirst[1]!, String(monthOf(yearFirst[2]!)), yearFirst[3]!);
	const parts = /^(\d{1,4})[\s./-]+(\d{1,2})[\s./-]+(\d{1,4})$/.exec(text);
	if (!parts) return null;
	const [, a, b, c] = parts as unknown as [string, string, string, string];
	if (a.length === 4 || (order === 'ymd' && c.length < 3)) return dateOf(a, b, c);
	if (a.length > 2 || c.length === 3) return null;
	return order === 'mdy' ? dateOf(c, a, b) : dateOf(c, b, a);
}

function dateOf(year: string, month: string, day: string): PlainDate | null {
	const full = year.length <= 2 ? `20${year.padStart(2, '0')}` : year;
	const date = `${full}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
	return isPlainDate(date) && full >= '1970' && full < '2100' ? date : null;
}

export type DecimalSign = '.' | ',';

const CODES = new Set(Intl.supportedValuesOf('currency'));
const SYMBOLS: Record<string, string> = {
	'£': 'GBP',
	'€': 'EUR',
	$: 'USD',
	'¥': 'JPY',
	'￥': 'JPY',
	'₹': 'INR',
	'₽': 'RUB',
	'₺': 'TRY',
	'₩': 'KRW',
	zł: 'PLN',
	Kč: 'CZK'
};

export interface WrittenAmount {
	amount: Minor;
	/** Which currency stands beside it; empty where none does. */
	currency: string;
}

/** A cell that says in one of the usual ways that there is nothing. */
export const isNothing = (typed: string): boolean =>
	/^\s*(?:[-–—−]+|n\/?a|nil|none|null)?\s*$/i.test(typed);

/**
 * An amount as banks write it: 1,234.56, 1.234,56, 1'234.50, -12.00, (12.00), £12, 12.00 DR, 12.500. Null where it is none, or is finer than a penny.
 * `decimal` is the sign before the pence where the whole column shows it; otherwise the amount itself must.
 */
export function readWrittenAmount(typed: string, decimal?: DecimalSign): WrittenAmount | null {
	let text = typed.replace(/[\s\u00a0\u202f'’]/g, '').replace(/[−–—]/g, '-');
	let currency = '';
	for (const [symbol, code] of Object.entries(SYMBOLS))
		if (text.includes(symbol)) {
			currency = code;
			text = text.replace(symbol, '');
		}
	const named = /^([+-]?\(?)([A-Z]{3})(?=[-+(\d.])|([A-Z]{3})\)?$/i.exec(text);
	const code = (named?.[2] ?? named?.[3] ?? '').toUpperCase();
	if (CODES.has(code)) {
		currency = code;
		text = text.replace(new RegExp(code, 'i'), '');
	}
	const mark = /(cr|dr|c|d)\.?$/i.exec(text)?.[1]?.toLowerCase() ?? '';
	text = text.replace(/(cr|dr|c|d)\.?$/i, '');
	const negative =
		/^\(.*\)$/.test(text) || mark.startsWith('d') || text.startsWith('-') || text.endsWith('-');
	text = text
		.replace(/^\((.*)\)$/, '$1')
		.replace(/^[-+]/, '')
		.replace(/[-+]$/, '');
	const sign = decimal ?? decimalIn(text) ?? '.';
	// 1.200 may be one pound twenty or twelve hundred: nobody guesses.
	if (!decimal && /^[1-9]\d{0,2}\.\d{3}$/.test(text)) return null;
	const group = sign === '.' ? ',' : '.';
	const [whole = '', pence = '', ...more] = text.split(sign);
	if (more.length > 0 || pence.includes(group)) return null;
	const grouped = new RegExp(`^\\d{1,3}(\\${group}\\d{3})+$`).test(whole);
	if (whole.includes(group) && !grouped) return null;
	// Further places are nothing but noughts, or it is no amount of money.
	if (!/^\d*$/.test(pence) || /[1-9]/.test(pence.slice(2))) return null;
	const digits = whole.replaceAll(group, '');
	if (!/^\d{1,12}$/.test(digits === '' && pence ? '0' : digits)) return null;
	const amount = parseMoney(`${digits || '0'}${pence ? `.${pence.slice(0, 2)}` : ''}`);
	return amount === null ? null : { amount: negative ? -amount : amount, currency };
}

/** Which sign stands before the pence, as far as one amount shows it. */
function decimalIn(text: string): DecimalSign | null {
	const last = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','));
	if (last < 0) return null;
	const sign = text[last] as DecimalSign;
	const other = sign === '.' ? ',' : '.';
	const once = text.indexOf(sign) === last;
	if (text.slice(0, last).includes(other)) return once ? sign : null;
	const behind = text.length - last - 1;
	if (!once) return other;
	// Three places may be thousands, unless what stands before them can be none.
	return behind === 3 && !/^(0|\d{4,})/.test(text) ? null : sign;
}

/** Which sign a column writes before its pence: as most of its amounts that show one have it; null where none does. */
export function decimalSignOf(cells: Iterable<string>): DecimalSign | null {
	let points = 0;
	let commas = 0;
	for (const cell of cells) {
		const sign = decimalIn(cell.replace(/[^\d.,]/g, ''));
		if (sign === '.') points++;
		if (sign === ',') commas++;
	}
	return commas > points ? ',' : points > 0 ? '.' : null;
}

/** An amount by itself, in pence. */
export const readAmount = (typed: string): Minor | null => {
	const read = readWrittenAmount(typed);
	return read && read.amount;
};

/** Whether a bank's words say that it took a payment back. */
export function saysTakenBack(words: string): boolean {
	return /revers|returned|recall|unpaid/i.test(words);
}

/** Words one after the other, each said once. */
export const joined = (parts: readonly string[], most = 500): string => {
	const kept: string[] = [];
	for (const part of parts) {
		const words = part.replace(/\s+/g, ' ').trim();
		if (words && !kept.some((one) => one.toLowerCase().includes(words.toLowerCase())))
			kept.push(words);
	}
	return kept.join(' ').slice(0, most);
};
