// Repeats out of other books: who is billed what, how often, and when next.
import type { RepeatUnit } from '../calendar/recurrence';
import type { PlainDate } from '../calendar/types';
import type { Column } from '../formats/table';
import { readTypedNumber } from '../money/typed';
import type { VatTreatment } from '../regimes/types';
import { treatmentOf } from './sums';
import { readDay, readYes, RowError, within } from './reading';

export const REPEAT_COLUMNS = [
	{
		field: 'customer',
		label: 'Customer',
		names: ['customer', 'client', 'customer name', 'client name', 'company', 'contact'],
		required: true
	},
	{
		field: 'name',
		label: 'Name',
		names: ['name', 'title', 'repeat', 'what', 'contract', 'plan'],
		required: true
	},
	{
		field: 'withVat',
		label: 'Price has VAT',
		names: ['price has vat', 'prices with vat', 'includes vat', 'vat included']
	},
	{ field: 'rate', label: 'VAT rate', names: ['vat rate', 'tax rate', 'rate of vat', 'vat'] },
	{
		field: 'price',
		label: 'Price',
		names: ['price', 'amount', 'each time', 'total', 'value'],
		required: true
	},
	{
		field: 'every',
		label: 'Every',
		names: ['every', 'how often', 'frequency', 'interval', 'period'],
		required: true
	},
	{
		field: 'next',
		label: 'Next',
		names: ['next', 'next date', 'next invoice', 'next on', 'date'],
		required: true
	},
	{ field: 'ends', label: 'Ends', names: ['ends', 'ends on', 'end date', 'until', 'last'] },
	{ field: 'sends', label: 'Sends', names: ['sends', 'send', 'send by itself', 'auto send'] },
	{ field: 'description', label: 'Description', names: ['description', 'details', 'line'] }
] as const satisfies readonly Column<string>[];
export type RepeatField = (typeof REPEAT_COLUMNS)[number]['field'];

export interface MovedRepeat {
	line: number;
	customer: string;
	name: string;
	description: string;
	price: string;
	/** Null: as the customer is priced. */
	withVat: boolean | null;
	treatment: VatTreatment;
	every: number;
	unit: RepeatUnit;
	next: PlainDate;
	ends: PlainDate | null;
	sends: boolean;
}

export interface ReadRepeat {
	line: number;
	name: string;
	repeat: MovedRepeat | null;
	why: string;
}

type Row = { line: number; values: Record<RepeatField, string> };

/** What the rows say, in the order of the file. */
export function readRepeats(rows: readonly Row[], today: PlainDate): ReadRepeat[] {
	return rows.map((row) => {
		const { line, values } = row;
		const name = values.name || `line ${line}`;
		try {
			return { line, name, repeat: readOne(row, today), why: '' };
		} catch (error) {
			if (error instanceof RowError) return { line, name, repeat: null, why: error.message };
			throw error;
		}
	});
}

function readOne({ line, values }: Row, today: PlainDate): MovedRepeat {
	if (values.customer === '') throw new RowError('It names no customer.');
	if (values.name === '') throw new RowError('It has no name.');
	const price = readTypedNumber(values.price, { decimals: 4 });
	if (!price.ok) throw new RowError(`“${values.price.slice(0, 30)}” is no price.`);
	const next = readDay(values.next, 'Next', today);
	if (next === null) throw new RowError('It does not say when it is billed next.');
	if (next < today) throw new RowError('Its next day has passed: give the one that comes.');
	const ends = readDay(values.ends, 'Ends', today);
	if (ends !== null && ends < next) throw new RowError('It would end before it is billed next.');
	return {
		line,
		customer: within(values.customer, 'The customer’s name', 300),
		name: within(values.name, 'Its name', 120),
		description: within(values.description || values.name, 'Its description', 2_000),
		price: price.text,
		withVat: readYes(values.withVat, 'Price has VAT'),
		treatment: treatmentOf(values.rate, next) ?? 'standard',
		...readEvery(values.every),
		next,
		ends,
		sends: readYes(values.sends, 'Sends') ?? false
	};
}

const NAMED: ReadonlyMap<string, { every: number; unit: RepeatUnit }> = new Map(
	Object.entries({
		daily: { every: 1, unit: 'day' },
		weekly: { every: 1, unit: 'week' },
		fortnightly: { every: 2, unit: 'week' },
		monthly: { every: 1, unit: 'month' },
		quarterly: { every: 3, unit: 'month' },
		yearly: { every: 1, unit: 'year' },
		annually: { every: 1, unit: 'year' },
		annual: { every: 1, unit: 'year' }
	} as const)
);

/** `monthly`, `every 2 weeks`, `3 months`, `quarter`. @throws RowError */
export function readEvery(cell: string): { every: number; unit: RepeatUnit } {
	const word = cell.toLowerCase().trim();
	const named = NAMED.get(word);
	if (named) return named;
	const found = /^(?:every\s+)?(\d{1,3})?\s*(day|week|fortnight|month|quarter|year)s?$/.exec(word);
	const count = Number(found?.[1] ?? '1');
	if (!found || count < 1)
		throw new RowError(`“${cell.slice(0, 30)}” does not say how often: write “every 3 months”.`);
	if (found[2] === 'fortnight') return { every: count * 2, unit: 'week' };
	if (found[2] === 'quarter') return { every: count * 3, unit: 'month' };
	return { every: count, unit: found[2] as RepeatUnit };
}
