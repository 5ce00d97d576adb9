// Moving in: what was carried over from other books, file by file, and what of it was taken back.
import { integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';

export const MOVING_KINDS = ['invoices', 'deposits', 'repeats'] as const;
export type MovingKind = (typeof MOVING_KINDS)[number];

/** A file that was brought in. */
export const movings = sqliteTable('movings', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	/** Names the press of the button: a second press brings nothing. */
	key: text('key').notNull().unique(),
	kind: text('kind', { enum: MOVING_KINDS }).notNull(),
	/** The file's name. */
	name: text('name').notNull(),
	createdAt: integer('created_at').notNull()
});

export const MOVED_THINGS = ['document', 'payment', 'repeat', 'job'] as const;

/** What it brought. */
export const movedRows = sqliteTable(
	'moved_rows',
	{
		movingId: integer('moving_id')
			.notNull()
			.references(() => movings.id),
		what: text('what', { enum: MOVED_THINGS }).notNull(),
		rowId: integer('row_id').notNull()
	},
	(table) => [primaryKey({ columns: [table.what, table.rowId] })]
);

/**
 * What was taken back again, because nothing had been built on it. A row here is the only leave to remove what otherwise
 * never goes; triggers give it to what was brought in, and to nothing else.
 */
export const takenBack = sqliteTable(
	'taken_back',
	{
		what: text('what', { enum: ['document', 'payment', 'entry'] }).notNull(),
		rowId: integer('row_id').notNull(),
		/** Its number, or what it was. */
		name: text('name').notNull(),
		personId: integer('person_id'),
		at: integer('at').notNull()
	},
	(table) => [primaryKey({ columns: [table.what, table.rowId] })]
);
