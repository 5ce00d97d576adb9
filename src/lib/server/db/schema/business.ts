// The owner's business, its tax status over time, number series, and who may sign in.
import { check, index, integer, sqliteTable, text, unique } from 'drizzle-orm/sqlite-core';
import { CURRENCIES } from '../../../core/money/currencies';
import { STAGGERS } from '../../../core/reports/periods';
import { LIST_NAMES } from '../../../core/lists/types';
import { sql } from 'drizzle-orm';

/** What can be brought back after it was removed. */
export const BIN_THINGS = [
	'visit',
	'time',
	'jobCost',
	'startingPoint',
	'listView',
	'deductionStatement',
	'priceEntry'
] as const;

export const business = sqliteTable(
	'business',
	{
		id: integer('id').primaryKey(),
		tradingName: text('trading_name').notNull().default(''),
		ownerName: text('owner_name').notNull(),
		address: text('address').notNull(),
		email: text('email').notNull().default(''),
		phone: text('phone').notNull().default(''),
		utr: text('utr').notNull().default(''),
		cisSubcontractor: integer('cis_subcontractor', { mode: 'boolean' }).notNull().default(false),
		bankAccountName: text('bank_account_name').notNull().default(''),
		bankSortCode: text('bank_sort_code').notNull().default(''),
		bankAccountNumber: text('bank_account_number').notNull().default(''),
		/** For payers abroad. */
		bankIban: text('bank_iban').notNull().default(''),
		bankBic: text('bank_bic').notNull().default(''),
		termsDays: integer('terms_days').notNull().default(14),
		termsEndOfMonth: integer('terms_end_of_month', { mode: 'boolean' }).notNull().default(false),
		invoiceNote: text('invoice_note').notNull().default(''),
		/** Pounds for each part of a text, as the gateway charges it; empty: not known. */
		textPrice: text('text_price').notNull().default(''),
		copyToSelf: integer('copy_to_self', { mode: 'boolean' }).notNull().default(true),
		/** Card fees of business customers' commercial cards are borne by them, at cost. */
		passOnCardFees: integer('pass_on_card_fees', { mode: 'boolean' }).notNull().default(false),
		/** When VAT periods end: in the months of a stagger, or each month; empty: not said yet. */
		vatStagger: text('vat_stagger', { enum: STAGGERS }).notNull().default(''),
		/** On the cash basis since that day; null: by tax point. */
		vatCashFrom: text('vat_cash_from'),
		updatedAt: integer('updated_at').notNull()
	},
	(table) => [check('one_business', sql`${table.id} = 1`)]
);

/** VAT registration follows the tax point, so each change is kept with the day from which it holds. */
export const vatStatuses = sqliteTable('vat_statuses', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	from: text('from').notNull().unique(),
	registered: integer('registered', { mode: 'boolean' }).notNull(),
	number: text('number').notNull().default('')
});

/** What one unit of another currency was worth in pounds, from the first day to the last, both included. */
export const exchangeRates = sqliteTable(
	'exchange_rates',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		currency: text('currency', { enum: CURRENCIES }).notNull(),
		from: text('from').notNull(),
		to: text('to').notNull(),
		/** Up to six decimals. */
		rate: text('rate').notNull(),
		source: text('source').notNull(),
		recordedAt: integer('recorded_at').notNull()
	},
	(table) => [unique('exchange_rates_day').on(table.currency, table.from)]
);

/** Numbers are taken inside the transaction that issues, so a series has no gaps. */
export const numberSeries = sqliteTable('number_series', {
	kind: text('kind', { enum: ['invoice', 'creditNote', 'quote'] }).primaryKey(),
	/** `{n}`, `{nnnn}` (padded), `{year}`. */
	pattern: text('pattern').notNull(),
	next: integer('next').notNull(),
	/** Running numbers at which the owner began anew: the only gaps there may be. */
	starts: text('starts', { mode: 'json' }).$type<number[]>().notNull().default([])
});

/** Only a hash of the session's token is kept. */
export const sessions = sqliteTable('sessions', {
	tokenHash: text('token_hash').primaryKey(),
	/** Who signed in: the owner, until there are others. */
	personId: integer('person_id').notNull().default(1),
	createdAt: integer('created_at').notNull(),
	expiresAt: integer('expires_at').notNull(),
	/** When it was last used, to a few minutes; a session that rests ends. */
	seenAt: integer('seen_at').notNull().default(0),
	/** Browser and system, in words, for the list of them. */
	device: text('device').notNull().default('')
});

/** Browsers from which the owner has signed in: somebody else's guesses do not lock them out. Only a hash of what they carry is kept. */
export const knownBrowsers = sqliteTable('known_browsers', {
	tokenHash: text('token_hash').primaryKey(),
	usedAt: integer('used_at').notNull()
});

export const signInFailures = sqliteTable(
	'sign_in_failures',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		source: text('source').notNull(),
		at: integer('at').notNull()
	},
	(table) => [index('sign_in_failures_by_source').on(table.source, table.at)]
);

/** What the nightly audit found, a row for each night; the words name what differs and where. */
export const audits = sqliteTable('audits', {
	day: text('day').primaryKey(),
	ranAt: integer('ran_at').notNull(),
	found: integer('found').notNull(),
	words: text('words', { mode: 'json' }).$type<string[]>().notNull()
});

/** Changes a thief would make, with where they were made: they stand on Today for a week. */
export const watchedChanges = sqliteTable('watched_changes', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	at: integer('at').notNull(),
	what: text('what', {
		enum: ['bank', 'email', 'password', 'stolen', 'people', 'factor']
	}).notNull(),
	/** From what to what, as far as it may be read again. */
	detail: text('detail').notNull(),
	device: text('device').notNull()
});

/** Views of lists that somebody kept: a name, and the address that brings them back. */
export const listViews = sqliteTable(
	'list_views',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		list: text('list', { enum: LIST_NAMES }).notNull(),
		name: text('name').notNull(),
		/** As `core/lists/address` writes it. */
		address: text('address').notNull(),
		/** Whose it is. */
		personId: integer('person_id').notNull().default(1),
		/** Everybody who sees the list has it too. */
		shared: integer('shared', { mode: 'boolean' }).notNull().default(true),
		createdAt: integer('created_at').notNull()
	},
	(table) => [unique('list_views_name').on(table.list, table.personId, table.name)]
);

/** What was removed in the last hours, row by row as it was, so that it can be brought back by whoever removed it. */
export const bin = sqliteTable('bin', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	what: text('what', { enum: BIN_THINGS }).notNull(),
	row: text('row', { mode: 'json' }).$type<Record<string, unknown>>().notNull(),
	personId: integer('person_id').notNull(),
	at: integer('at').notNull()
});
