// Text messages: how long, in how many parts, at what price; and what is said by answering one.
import { formatDecimal, parseDecimal } from '../money/decimal';
import { counted } from '../words';
import { textParts } from '../documents/wording';

/** Parts a text may come to; longer ones belong into a mail. */
export const MOST_TEXT_PARTS = 5;

/** What so many parts cost, such as `9p` or `13.5p`; nothing where a part has no price. @param price pounds for a part */
export function textCost(parts: number, price: string): string {
	const read = parseDecimal(price);
	if (read === null) return '';
	const { units, scale } = read;
	return `${formatDecimal({ units: units * BigInt(parts) * 100n, scale }).replace(/\.0+$|(\.\d*?)0+$/, '$1')}p`;
}

/** What is said beside a text before it goes: `2 parts, about 9p`. */
export function textSize(text: string, price: string): string {
	const parts = textParts(text);
	const cost = textCost(parts, price);
	return `${counted(parts, 'part')}${cost ? `, about ${cost}` : ''}`;
}

/** A text that is nothing but the word for no more of them, or for them again. */
export function stopWord(text: string): 'stop' | 'start' | null {
	const word = text
		.trim()
		.replace(/[.!]+$/, '')
		.toUpperCase();
	if (word === 'STOP' || word === 'STOP ALL' || word === 'STOPALL' || word === 'UNSUBSCRIBE')
		return 'stop';
	return word === 'START' || word === 'UNSTOP' ? 'start' : null;
}
