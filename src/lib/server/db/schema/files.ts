// Photos and files, each belonging to one thing. What they hold lies in the store of files, once for each content.
import { sql } from 'drizzle-orm';
import {
	blob,
	check,
	index,
	integer,
	sqliteTable,
	text,
	uniqueIndex
} from 'drizzle-orm/sqlite-core';
import { purchases } from './costs';
import { customers } from './customers';
import { documents } from './documents';
import { enquiries } from './enquiries';
import { quotes } from './quotes';
import { jobs } from './work';

export const files = sqliteTable(
	'files',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		jobId: integer('job_id').references(() => jobs.id, { onDelete: 'cascade' }),
		customerId: integer('customer_id').references(() => customers.id, { onDelete: 'cascade' }),
		documentId: integer('document_id').references(() => documents.id, { onDelete: 'cascade' }),
		purchaseId: integer('purchase_id').references(() => purchases.id, { onDelete: 'cascade' }),
		quoteId: integer('quote_id').references(() => quotes.id, { onDelete: 'cascade' }),
		enquiryId: integer('enquiry_id').references(() => enquiries.id, { onDelete: 'cascade' }),
		name: text('name').notNull(),
		type: text('type').notNull(),
		/** Bytes of what is stored. */
		size: integer('size').notNull().default(0),
		/** Of the file as it came, so that the same one twice is there once. */
		sha256: text('sha256').notNull(),
		/** Where its bytes lie in the store of files, by their hash. */
		stored: text('stored'),
		/** As it was before there was a store: the bytes themselves, until they are moved there. */
		content: blob('content', { mode: 'buffer' }),
		/** A small picture for lists; null for what is none. */
		thumbnail: blob('thumbnail', { mode: 'buffer' }),
		/** It goes out with the document: on its page, and with its e-mail. */
		goesOut: integer('goes_out', { mode: 'boolean' }).notNull().default(false),
		addedAt: integer('added_at').notNull(),
		/** Taken away: seen nowhere, and swept out a day later. */
		removedAt: integer('removed_at')
	},
	(table) => [
		check(
			'files_of_one',
			sql`(${table.jobId} is not null) + (${table.customerId} is not null) + (${table.documentId} is not null) + (${table.purchaseId} is not null) + (${table.quoteId} is not null) + (${table.enquiryId} is not null) = 1`
		),
		uniqueIndex('files_of_job').on(table.jobId, table.sha256),
		uniqueIndex('files_of_customer').on(table.customerId, table.sha256),
		uniqueIndex('files_of_document').on(table.documentId, table.sha256),
		uniqueIndex('files_of_purchase').on(table.purchaseId, table.sha256),
		uniqueIndex('files_of_quote').on(table.quoteId, table.sha256),
		uniqueIndex('files_of_enquiry').on(table.enquiryId, table.sha256),
		index('files_by_stored').on(table.stored)
	]
);
