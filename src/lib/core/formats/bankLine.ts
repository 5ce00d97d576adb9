// A line of a bank statement, and how banks write its date and its amount.
import { isPlainDate } from '../calendar/queries';
import type { PlainDate } from '../calendar/types';
import { parseMoney } from '../money/decimal';
import type { Minor } from '../money/types';

export interface BankLine {
	/** IBAN or account number as the file gives it; empty where it gives none. */
	account: string;
	date: PlainDate;
	/** Pence; above zero came in, below went out. */
	amount: Minor;
	/** Everything written about it. */
	text: string;
	/** Who paid, where the file says so apart. */
	payer: string;
	/** Whether the bank says that it takes an earlier one back. */
	reversal: boolean;
}

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];

/** A date as banks write it: 24/11/2026, 24 Nov 26, 2026-11-24, 20261124, with a time behind it or not. */
export function readDate(typed: string, order: 'dmy' | 'mdy' | 'ymd'): PlainDate | null {
	const text = typed.trim().replace(/[T ]\d{1,2}:\d{2}(:\d{2})?.*$/, '');
	const compact = /^(\d{4})(\d{2})(\d{2})$/.exec(text);
	const parts = compact ? compact.slice(1) : text.split(/[\s./-]+/);
	if (parts.length !== 3) return null;
	const [a, b, c] = parts as [string, string, string];
	const named = MONTHS.indexOf(b.slice(0, 3).toLowerCase()) + 1;
	const [year, month, day] =
		a.length === 4
			? [a, b, c]
			: named > 0
				? [c, String(named), a]
				: order === 'mdy'
					? [c, a, b]
					: [c, b, a];
	if (![year, month, day].every((part) => /^\d{1,4}$/.test(part))) return null;
	const full = year.length === 2 ? `20${year}` : year;
	const date = `${full}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
	return isPlainDate(date) ? date : null;
}

/** An amount as banks write it: 1,234.56, 1.234,56, -12.00, (12.00), £12, 12.00 DR. Null where it is none. */
export function readAmount(typed: string): Minor | null {
	let text = typed.replace(/[\s£$€\u00a0]|GBP|EUR/gi, '').replace('\u2212', '-');
	const negative =
		/^\(.*\)$/.test(text) || /DR$/i.test(text) || text.startsWith('-') || text.endsWith('-');
	text = text.replace(/^[-+(]|[-+)]$|(CR|DR)$/gi, '').replace(/^[-+]/, '');
	// What stands before the last one or two digits is the decimal sign; the other one only groups.
	if (/,\d{1,2}$/.test(text)) text = text.replaceAll('.', '').replace(',', '.');
	else text = text.replaceAll(',', '');
	const amount = /^\d{1,12}(\.\d{1,2})?$/.test(text) ? parseMoney(text) : null;
	return amount === null ? null : negative ? -amount : amount;
}

/** Whether a bank's words say that it took a payment back. */
export function saysTakenBack(words: string): boolean {
	return /revers|returned|recall|unpaid/i.test(words);
}
