// Looks of documents, their logos, and the owner's kinds of work.
import { sql } from 'drizzle-orm';
import { blob, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { Look } from '../../../core/letterheads/look';

export const letterheads = sqliteTable(
	'letterheads',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Names the press of the button that made it. */
		key: text('key').notNull().unique(),
		name: text('name').notNull(),
		look: text('look', { mode: 'json' }).$type<Look>().notNull(),
		/** What is used where nothing else is chosen. */
		standard: integer('standard', { mode: 'boolean' }).notNull().default(false),
		version: integer('version').notNull().default(1),
		createdAt: integer('created_at').notNull(),
		updatedAt: integer('updated_at').notNull(),
		archivedAt: integer('archived_at')
	},
	(table) => [
		uniqueIndex('letterheads_standard')
			.on(table.standard)
			.where(sql`standard = 1`)
	]
);

/** By the hash of what is kept: documents that were frozen with one find it as long as they are kept themselves. */
export const logos = sqliteTable('logos', {
	hash: text('hash').primaryKey(),
	/** As its file was called. */
	name: text('name').notNull(),
	/** A PNG, whatever it was brought in as. */
	content: blob('content', { mode: 'buffer' }).notNull(),
	width: integer('width').notNull(),
	height: integer('height').notNull(),
	createdAt: integer('created_at').notNull()
});

export const workKinds = sqliteTable(
	'work_kinds',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		name: text('name').notNull(),
		/** Documents about such work are written on it, unless the customer has one of its own. */
		letterheadId: integer('letterhead_id').references(() => letterheads.id),
		archivedAt: integer('archived_at')
	},
	(table) => [uniqueIndex('work_kinds_name').on(sql`lower(${table.name})`)]
);

export const LINE_TAG_SORTS = ['income', 'centre'] as const;

/** Income categories and cost centres. What has one has its name, so that a list that changes changes no books. */
export const lineTags = sqliteTable(
	'line_tags',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		sort: text('sort', { enum: LINE_TAG_SORTS }).notNull(),
		name: text('name').notNull(),
		archivedAt: integer('archived_at')
	},
	(table) => [uniqueIndex('line_tags_name').on(table.sort, sql`lower(${table.name})`)]
);
