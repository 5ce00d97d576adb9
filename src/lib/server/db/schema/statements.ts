// Statements: the runs that made them, and each one as it went out.
import { blob, index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { StatementOptions, StatementView } from '../../../core/documents/statementView';
import { customers } from './customers';

export const statementRuns = sqliteTable('statement_runs', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	/** Names the press of the button. */
	key: text('key').notNull().unique(),
	options: text('options', { mode: 'json' }).$type<StatementOptions>().notNull(),
	/** `send`: a mail for each; `make`: PDFs to print. */
	action: text('action', { enum: ['send', 'make'] }).notNull(),
	state: text('state', { enum: ['running', 'done'] }).notNull(),
	createdAt: integer('created_at').notNull(),
	finishedAt: integer('finished_at')
});

export const statements = sqliteTable(
	'statements',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		runId: integer('run_id')
			.notNull()
			.references(() => statementRuns.id),
		payerId: integer('payer_id')
			.notNull()
			.references(() => customers.id),
		state: text('state', { enum: ['waiting', 'sent', 'made', 'skipped'] }).notNull(),
		/** Why it was skipped, or not sent. */
		note: text('note').notNull().default(''),
		/** The unguessable part of its page's address. */
		token: text('token').unique(),
		/** As it went out. */
		view: text('view', { mode: 'json' }).$type<StatementView>(),
		balance: integer('balance').notNull().default(0),
		pdf: blob('pdf', { mode: 'buffer' }),
		madeAt: integer('made_at'),
		openedAt: integer('opened_at')
	},
	(table) => [
		index('statements_by_run').on(table.runId, table.state),
		index('statements_by_payer').on(table.payerId, table.madeAt)
	]
);
