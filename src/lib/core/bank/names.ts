// Names and numbers as they stand in a bank's text, and how a payer's name is remembered.
import type { ToMatch } from './types';

/** A payer is known by at least so many letters. */
export const LEAST_LETTERS = 4;
// Shorter ones, as Ltd and Mrs, are no words of a name anyway.
const NO_NAMES = new Set(['limited', 'household', 'from', 'payment', 'faster', 'invoice']);

export const squeezed = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');

/** How a payer's name on bank lines is remembered. */
export function learnedName({ payer, text }: Pick<ToMatch, 'payer' | 'text'>): string {
	return squeezed(payer || text.replace(/\d{2,}\S*/g, ' ')).slice(0, 60);
}

export function wordsOf(text: string): string[] {
	return text
		.toLowerCase()
		.split(/[^a-z0-9]+/)
		.filter((word) => word.length >= LEAST_LETTERS && !NO_NAMES.has(word) && !/^\d+$/.test(word));
}

/** Whether enough of a payer's name stands among the words of a line: half of them. */
export function isNamed(payer: string, words: ReadonlySet<string>): boolean {
	const name = wordsOf(payer);
	return name.length > 0 && name.filter((word) => words.has(word)).length * 2 >= name.length;
}

/** The words of a line that may be somebody's name. */
export const wordsOfLine = ({ payer, text }: Pick<ToMatch, 'payer' | 'text'>): Set<string> =>
	new Set(wordsOf(`${payer} ${text}`));

/** Every text that lacks one sign of a number: what two numbers one slip apart have in common. */
export function deletions(text: string): string[] {
	return Array.from(text, (_, index) => text.slice(0, index) + text.slice(index + 1));
}
