// The money a document can be in. All of it has two decimals, so that minor units mean the same everywhere.

/** The books are kept in sterling; what is in another currency comes into them by a rate. */
export const BOOKS = 'GBP';

export const CURRENCIES = [
	BOOKS,
	'AUD',
	'CAD',
	'CHF',
	'DKK',
	'EUR',
	'NOK',
	'NZD',
	'PLN',
	'SEK',
	'USD'
] as const;
export type Currency = (typeof CURRENCIES)[number];
