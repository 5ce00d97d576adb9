// What was bought: bills of suppliers, their credits, mileage. Amounts in pence.
import { index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import { sql } from 'drizzle-orm';
import { COST_CATEGORIES, PURCHASE_KINDS } from '../../../core/costs/types';
import { jobCosts, jobs } from './work';

export const suppliers = sqliteTable(
	'suppliers',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		name: text('name').notNull(),
		vatNumber: text('vat_number').notNull().default(''),
		/** Does construction work for the owner: what it is paid falls under CIS. */
		subcontractor: integer('subcontractor', { mode: 'boolean' }).notNull().default(false),
		/** What its bills are usually for. */
		category: text('category', { enum: COST_CATEGORIES }),
		archivedAt: integer('archived_at')
	},
	(table) => [uniqueIndex('suppliers_name').on(sql`lower(${table.name})`)]
);

export const purchases = sqliteTable(
	'purchases',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Names the press of the button that made it. */
		key: text('key').notNull().unique(),
		kind: text('kind', { enum: PURCHASE_KINDS }).notNull(),
		supplierId: integer('supplier_id').references(() => suppliers.id),
		/** The supplier's own number. */
		number: text('number').notNull().default(''),
		description: text('description').notNull(),
		date: text('date').notNull(),
		/** Null: not paid yet. */
		paidOn: text('paid_on'),
		/** Without VAT; a supplier's credit is below zero. */
		net: integer('net').notNull(),
		vat: integer('vat').notNull().default(0),
		/** The VAT on it may be reclaimed, but for the private share. */
		reclaim: integer('reclaim', { mode: 'boolean' }).notNull().default(false),
		/** Percent of it that is private; a decimal text, empty for none. */
		privateShare: text('private_share').notNull().default(''),
		category: text('category', { enum: COST_CATEGORIES }).notNull(),
		/** Of mileage: how far. A decimal text. */
		miles: text('miles').notNull().default(''),
		/** The owner's own cost centre; empty: none. */
		centre: text('centre').notNull().default(''),
		jobId: integer('job_id').references(() => jobs.id),
		/** What of the job it became, to be charged on or not. */
		costId: integer('cost_id').references(() => jobCosts.id, { onDelete: 'set null' }),
		version: integer('version').notNull().default(1),
		createdAt: integer('created_at').notNull(),
		updatedAt: integer('updated_at').notNull(),
		/** Taken away: it counts nowhere, and can be brought back. */
		removedAt: integer('removed_at')
	},
	(table) => [
		index('purchases_by_date').on(table.date, table.id),
		index('purchases_by_supplier').on(table.supplierId, table.number),
		index('purchases_by_job').on(table.jobId)
	]
);
