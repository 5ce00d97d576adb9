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

/** Those that need a rate. */
export const OTHER_CURRENCIES = CURRENCIES.filter((one) => one !== BOOKS);

/** What it is called, one and many; within a sentence. */
export const CURRENCY_NAMES: Record<Currency, { one: string; many: string }> = {
	GBP: { one: 'pound', many: 'pounds' },
	AUD: { one: 'Australian dollar', many: 'Australian dollars' },
	CAD: { one: 'Canadian dollar', many: 'Canadian dollars' },
	CHF: { one: 'Swiss franc', many: 'Swiss francs' },
	DKK: { one: 'Danish krone', many: 'Danish kroner' },
	EUR: { one: 'euro', many: 'euro' },
	NOK: { one: 'Norwegian krone', many: 'Norwegian kroner' },
	NZD: { one: 'New Zealand dollar', many: 'New Zealand dollars' },
	PLN: { one: 'Polish zloty', many: 'Polish zloty' },
	SEK: { one: 'Swedish krona', many: 'Swedish kronor' },
	USD: { one: 'US dollar', many: 'US dollars' }
};

/** What stands before an amount; a code keeps a space that does not break. */
const SIGNS: Partial<Record<Currency, string>> = {
	GBP: '£',
	EUR: '€',
	USD: 'US$',
	AUD: 'A$',
	CAD: 'C$',
	NZD: 'NZ$'
};
export const signOf = (currency: Currency = BOOKS): string =>
	SIGNS[currency] ?? `${currency}\u00a0`;

/** In the head of a column or of a box: `€`, `CHF`. */
export const unitOf = (currency: Currency = BOOKS): string => signOf(currency).trim();

export const isCurrency = (text: string): text is Currency =>
	(CURRENCIES as readonly string[]).includes(text);
