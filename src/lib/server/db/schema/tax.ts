// For the tax return: the payment and deduction statements contractors gave, and VAT claimed back on bad debts.
import { index, integer, sqliteTable, text, unique } from 'drizzle-orm/sqlite-core';
import { customers } from './customers';
import { documents } from './documents';

export const deductionStatements = sqliteTable(
	'deduction_statements',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		contractorId: integer('contractor_id')
			.notNull()
			.references(() => customers.id),
		/** The 5th on which its tax month ends. */
		monthEnd: text('month_end').notNull(),
		/** Pence, as it stands on the statement. */
		gross: integer('gross').notNull(),
		materials: integer('materials').notNull().default(0),
		deduction: integer('deduction').notNull(),
		reference: text('reference').notNull().default(''),
		recordedAt: integer('recorded_at').notNull()
	},
	(table) => [unique('deduction_statements_once').on(table.contractorId, table.monthEnd)]
);

/** VAT of a bad debt claimed back, or repaid (below zero) when the customer paid after all. Pence. */
export const reliefClaims = sqliteTable(
	'relief_claims',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id),
		date: text('date').notNull(),
		vat: integer('vat').notNull(),
		recordedAt: integer('recorded_at').notNull()
	},
	(table) => [index('relief_claims_by_document').on(table.documentId)]
);

/** Packs that were sent to an accountant: a link each, which opens for some weeks. */
export const packLinks = sqliteTable('pack_links', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	/** Names the press that sent it. */
	key: text('key').notNull().unique(),
	/** Of what the link carries; nobody can read it here. */
	tokenHash: text('token_hash').notNull().unique(),
	from: text('from').notNull(),
	to: text('to').notNull(),
	basis: text('basis', { enum: ['cash', 'invoice'] }).notNull(),
	sentTo: text('sent_to').notNull(),
	personId: integer('person_id'),
	createdAt: integer('created_at').notNull(),
	until: integer('until').notNull(),
	/** When it was fetched last. */
	takenAt: integer('taken_at'),
	revokedAt: integer('revoked_at')
});
