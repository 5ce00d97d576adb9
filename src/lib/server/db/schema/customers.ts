// Customers, their contacts and sites, and their tax standing over time.
import { CURRENCIES } from '../../../core/money/currencies';
import { index, integer, sqliteTable, text, type AnySQLiteColumn } from 'drizzle-orm/sqlite-core';
import type { PayWays } from '../../../core/payWays';
import { letterheads } from './letterheads';
import { CIS_RATES, CUSTOMER_KINDS } from '../../../core/regimes/types';

export const customers = sqliteTable(
	'customers',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		kind: text('kind', { enum: CUSTOMER_KINDS }).notNull(),
		name: text('name').notNull(),
		email: text('email').notNull().default(''),
		phone: text('phone').notNull().default(''),
		address: text('address').notNull().default(''),
		billToId: integer('bill_to_id').references((): AnySQLiteColumn => customers.id),
		/** Null: the owner's default terms. */
		/** What is written for it is in this money, where the document does not say otherwise. */
		currency: text('currency', { enum: CURRENCIES }).notNull().default('GBP'),
		termsDays: integer('terms_days'),
		termsEndOfMonth: integer('terms_end_of_month', { mode: 'boolean' }).notNull().default(false),
		/** How it may pay; null: in every way. */
		payWays: text('pay_ways', { mode: 'json' }).$type<PayWays>(),
		orderNumberRequired: integer('order_number_required', { mode: 'boolean' })
			.notNull()
			.default(false),
		/** How its messages begin, such as “Dear Mrs Bexley”; empty: as everybody's. */
		salutation: text('salutation').notNull().default(''),
		/** What its documents are written on; null: by the kind of work, or the standard. */
		letterheadId: integer('letterhead_id').references(() => letterheads.id),
		/** Never reaches a document. */
		privateNote: text('private_note').notNull().default(''),
		labels: text('labels', { mode: 'json' }).$type<string[]>().notNull().default([]),
		version: integer('version').notNull().default(1),
		createdAt: integer('created_at').notNull(),
		updatedAt: integer('updated_at').notNull(),
		/** Wants no news of visits. */
		/** A household that acts in the way of trade, such as a landlord: no consumer. */
		inTrade: integer('in_trade', { mode: 'boolean' }).notNull().default(false),
		noVisitNews: integer('no_visit_news', { mode: 'boolean' }).notNull().default(false),
		archivedAt: integer('archived_at')
	},
	(table) => [index('customers_by_name').on(table.name)]
);

export const contacts = sqliteTable(
	'contacts',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		customerId: integer('customer_id')
			.notNull()
			.references(() => customers.id, { onDelete: 'cascade' }),
		name: text('name').notNull(),
		role: text('role').notNull().default(''),
		email: text('email').notNull().default(''),
		phone: text('phone').notNull().default('')
	},
	(table) => [index('contacts_by_customer').on(table.customerId)]
);

export const sites = sqliteTable(
	'sites',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		customerId: integer('customer_id')
			.notNull()
			.references(() => customers.id, { onDelete: 'cascade' }),
		name: text('name').notNull(),
		address: text('address').notNull().default(''),
		accessNotes: text('access_notes').notNull().default(''),
		/** Who is there, where that is another than the customer: hears of visits, never of bills. */
		contactName: text('contact_name').notNull().default(''),
		contactEmail: text('contact_email').notNull().default(''),
		contactPhone: text('contact_phone').notNull().default(''),
		/** Who gets the bill for work here; null: as for the customer. */
		billToId: integer('bill_to_id').references(() => customers.id)
	},
	(table) => [index('sites_by_customer').on(table.customerId)]
);

/** What holds from a day on; documents issued before keep the standing they were issued with. */
export const taxStandings = sqliteTable(
	'tax_standings',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		customerId: integer('customer_id')
			.notNull()
			.references(() => customers.id, { onDelete: 'cascade' }),
		from: text('from').notNull(),
		vatRegistered: integer('vat_registered', { mode: 'boolean' }).notNull().default(false),
		vatNumber: text('vat_number').notNull().default(''),
		cisRegistered: integer('cis_registered', { mode: 'boolean' }).notNull().default(false),
		cisRate: text('cis_rate', { enum: CIS_RATES }),
		verificationNumber: text('verification_number').notNull().default(''),
		endUser: integer('end_user', { mode: 'boolean' }).notNull().default(false),
		endUserStatement: text('end_user_statement').notNull().default(''),
		endUserDate: text('end_user_date'),
		recordedAt: integer('recorded_at').notNull()
	},
	(table) => [index('tax_standings_by_customer').on(table.customerId, table.from)]
);
