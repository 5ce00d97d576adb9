// Amounts as they are written in Britain. Formatting only: strings in, no arithmetic.
import { BOOKS, signOf, type Currency } from './currencies';
import { formatMoney } from './decimal';
import type { Minor } from './types';

/** `-123450n` → `−1,234.50` (true minus sign). */
export function displayAmount(minor: Minor | number): string {
	const text = formatMoney(BigInt(minor));
	const negative = text.startsWith('-');
	const [whole = '0', decimals = '00'] = (negative ? text.slice(1) : text).split('.');
	return `${negative ? '\u2212' : ''}${whole.replace(/\B(?=(\d{3})+$)/g, ',')}.${decimals}`;
}

/** `123450n` → `£1,234.50`, or `€1,234.50` where it is in another currency. */
export function displayMoney(minor: Minor | number, currency: Currency = BOOKS): string {
	const text = displayAmount(minor);
	return text.startsWith('\u2212')
		? `\u2212${signOf(currency)}${text.slice(1)}`
		: `${signOf(currency)}${text}`;
}

/** What the books are kept in. */
export const displayPounds = (minor: Minor | number): string => displayMoney(minor);
