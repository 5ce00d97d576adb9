// What one unit of a document's money is worth in the books, on its tax point: typed, or from the table (`tax-gb.md` 2).
import { displayDate } from '../calendar/conversion';
import type { PlainDate } from '../calendar/types';
import { formatDecimal, parseDecimal } from '../money/decimal';
import type { Exchange, ExchangeRate } from '../money/exchange';
import { BOOKS, CURRENCY_NAMES, type Currency } from '../money/currencies';
import { explainTypedNumber, readTypedNumber } from '../money/typed';
import type { SheetContext } from './context';
import type { Problem, Sheet } from './types';

export const RATE_LIMITS = { decimals: 6, digits: 9 };

/** A rate as typed: above zero. @returns its text, or why not */
export function readRate(typed: string): { rate: string } | { wrong: string } {
	const read = readTypedNumber(typed, RATE_LIMITS);
	if (!read.ok) return { wrong: explainTypedNumber(read, 'a rate', RATE_LIMITS) };
	const rate = parseDecimal(read.text)!;
	return rate.units > 0n
		? { rate: formatDecimal(rate) }
		: { wrong: 'A rate above zero: pounds for one of it.' };
}

/** The row of the table that holds on a day. */
export const rateOn = (
	rates: readonly ExchangeRate[],
	currency: Currency,
	day: PlainDate
): ExchangeRate | undefined =>
	rates.find((one) => one.currency === currency && one.from <= day && day <= one.to);

/** Null in sterling, and where none is known; then a problem says so. */
export function decideExchange(
	sheet: Sheet,
	{ rates = [], exchange: decided }: SheetContext,
	day: PlainDate,
	problems: Problem[]
): Exchange | null {
	const { currency = BOOKS, exchange: typed } = sheet;
	if (currency === BOOKS) return null;
	if (sheet.stageId || sheet.charge)
		problems.push({
			path: 'currency',
			level: 'stop',
			message: sheet.stageId
				? 'A stage is billed in the money of its contract: in pounds.'
				: 'A charge for lateness is worked out in pounds.',
			fix: { label: 'Bill in pounds', type: 'set', field: 'currency', value: BOOKS }
		});
	if (decided) return decided;
	if ((typed?.source ?? '').length > 200)
		problems.push({ path: 'exchange.source', level: 'stop', message: 'At most 200 characters.' });
	if (typed?.rate.trim()) {
		const read = readRate(typed.rate);
		if ('rate' in read)
			return { rate: read.rate, source: typed.source.trim() || 'as typed on the document' };
		problems.push({ path: 'exchange.rate', level: 'stop', message: read.wrong });
		return null;
	}
	const known = rateOn(rates, currency, day);
	if (known) return { rate: known.rate, source: known.source };
	problems.push({
		path: 'exchange.rate',
		level: 'stop',
		message: `What was one ${CURRENCY_NAMES[currency].one} worth in pounds on ${displayDate(day)}? No rate is known for that day.`,
		reference: 'VATA 1994 Sch. 6 para. 11',
		fix: { label: 'Type the rate', type: 'focus', path: 'exchange.rate' },
		atIssue: true
	});
	return null;
}
