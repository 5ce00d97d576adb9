// Amounts as they are written in Britain. Formatting only: strings in, no arithmetic.
import { formatMoney } from './decimal';
import type { Minor } from './types';

/** `-123450n` → `−1,234.50` (true minus sign). */
export function displayAmount(minor: Minor | number): string {
	const text = formatMoney(BigInt(minor));
	const negative = text.startsWith('-');
	const [whole = '0', decimals = '00'] = (negative ? text.slice(1) : text).split('.');
	return `${negative ? '\u2212' : ''}${whole.replace(/\B(?=(\d{3})+$)/g, ',')}.${decimals}`;
}

/** `123450n` → `£1,234.50`. */
export function displayPounds(minor: Minor | number): string {
	const text = displayAmount(minor);
	return text.startsWith('\u2212') ? `\u2212£${text.slice(1)}` : `£${text}`;
}
