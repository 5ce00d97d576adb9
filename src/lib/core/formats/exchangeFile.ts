// Exchange rates out of a monthly CSV file, as the tax office publishes one: so many units to the pound, from a day to a day.
import type { PlainDate } from '../calendar/types';
import { divideRounded, formatDecimal, parseDecimal, powerOfTen } from '../money/decimal';
import { BOOKS, isCurrency, type Currency } from '../money/currencies';
import type { Decimal } from '../money/types';
import type { ExchangeRate } from '../money/exchange';
import { readDate } from './bank/line';
import { matchColumns, readTable, TableError, type Column } from './table';

type Field = 'code' | 'units' | 'from' | 'to';

const COLUMNS: Column<Field>[] = [
	{ field: 'code', label: 'Currency code', names: ['currency code', 'code', 'iso code'] },
	{
		field: 'units',
		label: 'Currency units per £1',
		names: ['currency units per 1', 'units per 1', 'currency units per gbp 1', 'rate']
	},
	{ field: 'from', label: 'Start date', names: ['start date', 'from', 'valid from'] },
	{ field: 'to', label: 'End date', names: ['end date', 'to', 'valid to'] }
];

export type MonthlyRate = ExchangeRate & { row: number };

/** The decimals a rate keeps. */
const DECIMALS = 6;

/** Pounds for one unit, where so many of them make a pound: to six decimals, half up. */
export function poundsFor(units: Decimal): string | null {
	if (units.units <= 0n) return null;
	const scaled = divideRounded(powerOfTen(units.scale + DECIMALS), units.units);
	return scaled > 0n ? formatDecimal({ units: scaled, scale: DECIMALS }) : null;
}

/** Money that no document can be in is passed over; the same money twice for one day is refused unless it says the same. */
export function readExchangeFile(
	bytes: Uint8Array,
	name: string
): { rates: MonthlyRate[] } | { wrong: string } {
	let table;
	try {
		table = readTable(bytes);
	} catch (error) {
		if (error instanceof TableError) return { wrong: error.message };
		throw error;
	}
	const at = matchColumns(table.headings, COLUMNS);
	const lacking = COLUMNS.find(({ field }) => at[field] === undefined);
	if (lacking)
		return {
			wrong: `No column is called “${lacking.label}”. Needed are the currency’s code, its units to the pound, and the first and the last day.`
		};
	const rates: MonthlyRate[] = [];
	const seen = new Map<string, string>();
	for (const { line, cells } of table.rows) {
		const cell = (field: Field) => cells[at[field]!] ?? '';
		const currency = cell('code').toUpperCase();
		if (!isCurrency(currency) || currency === BOOKS) continue;
		const units = parseDecimal(cell('units').replace(/,/g, ''));
		const rate = units && poundsFor(units);
		const from = dayOf(cell('from'));
		const to = dayOf(cell('to'));
		if (!rate)
			return { wrong: `Row ${line}: “${cell('units')}” is no number of ${currency} above zero.` };
		if (!from || !to || to < from)
			return { wrong: `Row ${line}: “${cell('from')}” to “${cell('to')}” are no days.` };
		const before = seen.get(`${currency} ${from}`);
		if (before === rate) continue;
		if (before !== undefined)
			return { wrong: `Row ${line}: ${currency} has two rates for one day.` };
		seen.set(`${currency} ${from}`, rate);
		rates.push({
			currency,
			from,
			to,
			rate,
			source: sourceOf(name, cell('units'), currency),
			row: line
		});
	}
	return rates.length
		? { rates }
		: { wrong: 'It names none of the currencies that documents can be in.' };
}

const sourceOf = (name: string, units: string, currency: Currency): string =>
	`monthly rates, ${units} ${currency} to the pound${name ? `, from ${name.slice(0, 80)}` : ''}`;

const dayOf = (cell: string): PlainDate | null => readDate(cell, 'dmy');
