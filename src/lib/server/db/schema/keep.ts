// What keeps the data the owner's: backups, what was restored, what was removed for good, and secrets at rest.
import { blob, check, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { sql } from 'drizzle-orm';

export const backupSettings = sqliteTable(
	'backup_settings',
	{
		id: integer('id').primaryKey(),
		/** A second place for backups, such as a stick; empty: none. */
		folder: text('folder').notNull().default(''),
		/** Written with a passphrase, of which only the key is kept, as a secret. */
		sealed: integer('sealed', { mode: 'boolean' }).notNull().default(false),
		updatedAt: integer('updated_at').notNull()
	},
	(table) => [check('one_backup_settings', sql`${table.id} = 1`)]
);

/** Each attempt to make a backup, and what became of it. */
export const backups = sqliteTable('backups', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	startedAt: integer('started_at').notNull(),
	/** Null: it is being made, or the machine stopped meanwhile. */
	endedAt: integer('ended_at'),
	why: text('why', { enum: ['night', 'hand'] }).notNull(),
	name: text('name').notNull(),
	bytes: integer('bytes').notNull().default(0),
	files: integer('files').notNull().default(0),
	/** In how many places the books in it differ from themselves. */
	found: integer('found').notNull().default(0),
	/** Why there is none; empty: it is whole. */
	problem: text('problem').notNull().default(''),
	/** When it lay in the second place as well. */
	secondAt: integer('second_at'),
	secondProblem: text('second_problem').notNull().default('')
});

/** These books come from a backup: nothing goes out by itself until the owner has looked and started it. */
export const restores = sqliteTable('restores', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	/** When the backup was made. */
	madeAt: integer('made_at').notNull(),
	restoredAt: integer('restored_at').notNull(),
	/** When the owner started what goes out by itself. */
	startedAt: integer('started_at'),
	/** Files that the backup names and that were nowhere. */
	missing: text('missing', { mode: 'json' }).$type<string[]>().notNull().default([])
});

/** What must not be readable in a stolen copy of the file: under a key that lies beside it and in no backup. */
export const secrets = sqliteTable('secrets', {
	name: text('name').primaryKey(),
	sealed: blob('sealed', { mode: 'buffer' }).notNull()
});

/** Customers of whom all was removed that no law asks to keep. They are listed outside the file as well, for a restore. */
export const removals = sqliteTable('removals', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	customerId: integer('customer_id').notNull(),
	at: integer('at').notNull(),
	/** What went, in words. */
	what: text('what').notNull()
});

/** Links that were renewed or closed: what is issued keeps its own token, which opens nothing any more. */
export const links = sqliteTable('links', {
	/** As the document, statement or reminder has it. */
	token: text('token').primaryKey(),
	/** What opens it now; null: nothing does. */
	now: text('now').unique(),
	at: integer('at').notNull()
});
