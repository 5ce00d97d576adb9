// Numbers whose check digits tell a slip of the finger (HMRC and banking algorithms).

/**
 * VAT number: optional `GB`, nine digits (twelve with a branch); both check-digit rules. Government departments have `GD` and
 * three digits below 500, health bodies `HA` and three from 500. All zeros is none.
 */
export function isVatNumber(text: string): boolean {
	const body = publicBody(text);
	if (body) return body.kind === 'GD' ? body.number < 500 : body.number >= 500;
	const digits = /^(?:GB)?(\d{9})(?:\d{3})?$/.exec(compact(text))?.[1];
	if (!digits || /^0+$/.test(digits)) return false;
	const weighted = [8, 7, 6, 5, 4, 3, 2].reduce(
		(sum, weight, index) => sum + weight * Number(digits[index]),
		0
	);
	const sum = weighted + Number(digits.slice(7));
	return sum % 97 === 0 || (sum + 55) % 97 === 0;
}

function publicBody(text: string): { kind: 'GD' | 'HA'; number: number } | null {
	const found = /^(?:GB)?(GD|HA)(\d{3})$/.exec(compact(text));
	return found && { kind: found[1] as 'GD' | 'HA', number: Number(found[2]) };
}

/** `GB 123 4567 82`, as it is printed. */
export function formatVatNumber(text: string): string {
	if (publicBody(text)) return compact(text).replace(/^(?:GB)?/, 'GB');
	const digits = compact(text).replace(/^GB/, '');
	const groups = [digits.slice(0, 3), digits.slice(3, 7), digits.slice(7, 9), digits.slice(9)];
	return ['GB', ...groups.filter(Boolean)].join(' ');
}

/** Unique Taxpayer Reference: ten digits, the first of them a check digit. */
export function isUtr(text: string): boolean {
	const digits = compact(text);
	if (!/^\d{10}$/.test(digits)) return false;
	const weights = [6, 7, 8, 9, 10, 5, 4, 3, 2];
	const sum = weights.reduce(
		(total, weight, index) => total + weight * Number(digits[index + 1]),
		0
	);
	return '21987654321'[sum % 11] === digits[0];
}

/** CIS verification number: `V`, ten digits, and one or two letters where HMRC found no match. */
export function readVerificationNumber(text: string): { matched: boolean } | null {
	const match = /^V\d{10}([A-Z]{0,2})$/.exec(compact(text).replace('/', ''));
	return match ? { matched: match[1] === '' } : null;
}

export function isSortCode(text: string): boolean {
	return /^\d{6}$/.test(text.replace(/[\s-]/g, ''));
}

export function isAccountNumber(text: string): boolean {
	return /^\d{8}$/.test(text.replace(/\s/g, ''));
}

function compact(text: string): string {
	return text.replace(/[\s.-]/g, '').toUpperCase();
}

/** A telephone number as a gateway takes it: without what people write between its digits. */
export const plainNumber = (typed: string): string => typed.replace(/[\s()-]/g, '');

/** The same number however it was written: as it is dialled at home. */
export const homeNumber = (typed: string): string => plainNumber(typed).replace(/^(\+|00)44/, '0');

/** A British mobile number, to which texts go. */
export const isMobile = (phone: string): boolean => /^(\+44|0)7\d{9}$/.test(plainNumber(phone));

/** An account number as banks abroad want it: its two check digits leave 1 when divided by 97 (ISO 13616). */
export function isIban(text: string): boolean {
	const iban = compact(text);
	if (!/^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(iban)) return false;
	let rest = 0;
	for (const letter of iban.slice(4) + iban.slice(0, 4))
		rest = Number(`${rest}${Number.parseInt(letter, 36)}`) % 97;
	return rest === 1;
}

/** A bank's own code (ISO 9362). */
export const isBic = (text: string): boolean =>
	/^[A-Z]{6}[A-Z0-9]{2}([A-Z0-9]{3})?$/.test(compact(text));
