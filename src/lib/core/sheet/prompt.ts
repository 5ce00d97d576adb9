// Terms for paying in time: so many percent off, within so many days. Typed on a sheet, read here.
import { parseDecimal } from '../money/decimal';
import { readTypedNumber } from '../money/typed';
import type { Decimal } from '../money/types';
import type { Sheet } from './types';

export interface PromptTerms {
	percent: Decimal;
	days: number;
}

const LONGEST_DAYS = 365;

/** @param stop told what is wrong, at `prompt.percent` or `prompt.days` */
export function readPrompt(
	{ prompt }: Pick<Sheet, 'prompt'>,
	stop: (path: string, message: string) => void = () => undefined
): PromptTerms | null {
	const [typed, days] = [prompt?.percent.trim() ?? '', prompt?.days.trim() ?? ''];
	if (typed === '' && days === '') return null;
	const read = readTypedNumber(typed.replace(/%$/, ''), { decimals: 2 });
	const percent = read.ok ? parseDecimal(read.text)! : null;
	const inRange =
		percent && percent.units > 0n && percent.units < 100n * 10n ** BigInt(percent.scale);
	if (!inRange) stop('prompt.percent', 'A percentage above 0 and below 100, such as 2.');
	const counted = /^\d{1,3}$/.test(days) ? Number(days) : 0;
	const inTime = counted >= 1 && counted <= LONGEST_DAYS;
	if (!inTime) stop('prompt.days', `A number of days, from 1 to ${LONGEST_DAYS}.`);
	return inRange && inTime ? { percent, days: counted } : null;
}
