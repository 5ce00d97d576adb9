// What is known about money still owed: disputes, promises, calls. And the rates the law takes for late debts.
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { customers } from './customers';
import { documents } from './documents';

export const HOLD_KINDS = ['dispute', 'promise'] as const;

/** An invoice that is not chased: it is disputed, or its payment is promised by a day. Ended rows stay as history. */
export const holds = sqliteTable(
	'holds',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id),
		kind: text('kind', { enum: HOLD_KINDS }).notNull(),
		/** The day a promise is for. */
		until: text('until'),
		note: text('note').notNull().default(''),
		createdAt: integer('created_at').notNull(),
		endedAt: integer('ended_at')
	},
	(table) => [index('holds_by_document').on(table.documentId, table.endedAt)]
);

/** Notes of calls and talks with a payer. */
export const callNotes = sqliteTable(
	'call_notes',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		customerId: integer('customer_id')
			.notNull()
			.references(() => customers.id),
		at: integer('at').notNull(),
		text: text('text').notNull()
	},
	(table) => [index('call_notes_by_customer').on(table.customerId, table.at)]
);

/** The Bank of England's base rate for each half year, in percent, as the Late Payment Act refers to it. */
export const referenceRates = sqliteTable('reference_rates', {
	from: text('from').primaryKey(),
	rate: text('rate').notNull()
});
