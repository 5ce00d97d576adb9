// Job sheets, and signatures: on them, and on invoices.
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
import type { JobSheetSource, JobSheetWritten } from '../../../core/jobs/jobSheet';
import { documents } from './documents';
import { jobs } from './work';

/** What was done on a job, for the customer. Once it is finished triggers refuse any change. */
export const jobSheets = sqliteTable(
	'job_sheets',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Names the press of the button that made it. */
		key: text('key').notNull().unique(),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id, { onDelete: 'cascade' }),
		/** Which of its job's sheets it is, from 1. */
		n: integer('n').notNull(),
		/** The unguessable part of its page's address. */
		token: text('token').notNull().unique(),
		state: text('state', { enum: ['draft', 'finished'] }).notNull(),
		written: text('written', { mode: 'json' }).$type<JobSheetWritten>().notNull(),
		version: integer('version').notNull().default(1),
		/** `J-0007/1` and everything it was made from; null while it is written. */
		number: text('number'),
		frozen: text('frozen', { mode: 'json' }).$type<JobSheetSource>(),
		finishedOn: text('finished_on'),
		pdf: blob('pdf', { mode: 'buffer' }),
		sha256: text('sha256').notNull().default(''),
		createdAt: integer('created_at').notNull(),
		updatedAt: integer('updated_at').notNull()
	},
	(table) => [
		uniqueIndex('job_sheets_of_job').on(table.jobId, table.n),
		// Two are not written at once.
		uniqueIndex('job_sheets_written')
			.on(table.jobId)
			.where(sql`state = 'draft'`)
	]
);

export const SIGNED_FOR = ['received', 'accepted', 'done'] as const;

/** Stands beside what was signed and never changes it: once for each invoice, and for each job sheet. */
export const signatures = sqliteTable(
	'signatures',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		documentId: integer('document_id')
			.unique()
			.references(() => documents.id),
		sheetId: integer('sheet_id')
			.unique()
			.references(() => jobSheets.id),
		/** That it was received, that the work is accepted, that this was done. */
		what: text('what', { enum: SIGNED_FOR }).notNull(),
		name: text('name').notNull(),
		position: text('position').notNull().default(''),
		/** A PNG of what was drawn; null: the typed name stands for it. */
		drawn: blob('drawn', { mode: 'buffer' }),
		way: text('way', { enum: ['phone', 'page'] }).notNull(),
		at: integer('at').notNull(),
		/** Where from: kept six years, and said so. */
		address: text('address').notNull().default(''),
		agent: text('agent').notNull().default(''),
		/** SHA-256 of the PDF that was signed for. */
		ofSha256: text('of_sha256').notNull(),
		/** The PDF with the signature on it; drawn after it, and set once. */
		record: blob('record', { mode: 'buffer' }),
		recordSha256: text('record_sha256').notNull().default('')
	},
	(table) => [
		check(
			'signatures_of_one',
			sql`(${table.documentId} is not null) + (${table.sheetId} is not null) = 1`
		),
		index('signatures_to_draw')
			.on(table.id)
			.where(sql`record is null`)
	]
);
