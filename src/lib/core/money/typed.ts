// What people type or paste where a number is wanted: spaces, thousands commas, a currency sign.
import { parseDecimal } from './decimal';

export type TypedNumber =
	| { ok: true; text: string }
	| { ok: false; reason: 'empty' | 'notANumber' | 'tooManyDecimals' | 'negative' | 'tooLarge' };

export interface TypedNumberLimits {
	decimals: number;
	negative?: boolean;
	/** Most digits before the point. */
	digits?: number;
}

const MINUS_SIGNS = /[\u2212\u2013\u2012]/g;
const SPACES_AND_SIGNS = /[\s\u00a0\u2009\u202f£$€]/g;
const GROUPED = /^-?[0-9]{1,3}(,[0-9]{3})+(\.[0-9]+)?$/;

/**
 * Reads a number as a person wrote it and returns it as a plain decimal string.
 * `(12.50)` is negative, as spreadsheets print it. Never guesses: `1,5` is refused.
 */
export function readTypedNumber(typed: string, limits: TypedNumberLimits): TypedNumber {
	let text = typed.replace(SPACES_AND_SIGNS, '').replace(MINUS_SIGNS, '-');
	if (text === '') return { ok: false, reason: 'empty' };
	if (/^\(.*\)$/.test(text)) text = `-${text.slice(1, -1)}`;
	if (text.startsWith('+')) text = text.slice(1);
	if (text.includes(',') && GROUPED.test(text)) text = text.replaceAll(',', '');
	text = text.replace(/^(-?)\./, '$10.').replace(/\.$/, '');

	const decimal = parseDecimal(text);
	if (!decimal) return { ok: false, reason: 'notANumber' };
	const digits = (decimal.units < 0n ? -decimal.units : decimal.units).toString().length;
	if (digits - decimal.scale > (limits.digits ?? 9)) return { ok: false, reason: 'tooLarge' };
	if (decimal.scale > limits.decimals) {
		// Zeros beyond the limit change nothing, and spreadsheets like to add them.
		const cut = text.slice(0, text.length - (decimal.scale - limits.decimals));
		const rest = text.slice(cut.length);
		if (/[1-9]/.test(rest)) return { ok: false, reason: 'tooManyDecimals' };
		text = cut.replace(/\.$/, '');
	}
	if (!limits.negative && decimal.units < 0n) return { ok: false, reason: 'negative' };
	return { ok: true, text };
}

/** The message for a number that could not be read, in plain words. */
export function explainTypedNumber(
	result: Extract<TypedNumber, { ok: false }>,
	what: string,
	limits: TypedNumberLimits
): string {
	switch (result.reason) {
		case 'empty':
			return `Give ${what}.`;
		case 'notANumber':
			return `Write ${what} as a plain number, such as 12.50.`;
		case 'tooManyDecimals':
			return `At most ${limits.decimals} decimals here.`;
		case 'negative':
			return `This cannot be below zero.`;
		case 'tooLarge':
			return `That is too large: at most ${limits.digits ?? 9} digits before the point.`;
	}
}
