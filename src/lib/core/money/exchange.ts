// What one unit of other money is worth in the books.
import type { PlainDate } from '../calendar/types';
import type { Currency } from './currencies';

/** What a rate is, and where it came from. */
export interface Exchange {
	/** Pounds for one unit, up to six decimals. */
	rate: string;
	source: string;
}

/** A row of the table: holds from the first day to the last, both included. */
export interface ExchangeRate extends Exchange {
	currency: Currency;
	from: PlainDate;
	to: PlainDate;
}
