// One action on many rows: which rows were chosen, and what became of each. Worked off step by step, each step once.
import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { MANY_ACTIONS, type ManyOptions } from '../../../core/lists/actions';
import { LIST_NAMES } from '../../../core/lists/types';

export const manyRuns = sqliteTable(
	'many_runs',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Names the press of the button. */
		key: text('key').notNull().unique(),
		list: text('list', { enum: LIST_NAMES }).notNull(),
		/** The view that was looked at when all of it was chosen; null: rows were chosen one by one. */
		view: text('view'),
		/** Null until it is begun. */
		action: text('action', { enum: MANY_ACTIONS }),
		/** What the action asked for: a day, a way, a label. */
		options: text('options', { mode: 'json' }).$type<ManyOptions>().notNull().default({}),
		state: text('state', { enum: ['chosen', 'running', 'stopped', 'done'] }).notNull(),
		createdAt: integer('created_at').notNull(),
		endedAt: integer('ended_at')
	},
	(table) => [index('many_runs_by_state').on(table.state)]
);

export const manyRows = sqliteTable(
	'many_rows',
	{
		runId: integer('run_id')
			.notNull()
			.references(() => manyRuns.id, { onDelete: 'cascade' }),
		/** The number of a row of its list. */
		rowId: integer('row_id').notNull(),
		state: text('state', { enum: ['waiting', 'done', 'leftOut'] }).notNull(),
		/** Why it was left out. */
		why: text('why').notNull().default('')
	},
	(table) => [
		primaryKey({ columns: [table.runId, table.rowId] }),
		index('many_rows_by_state').on(table.runId, table.state, table.rowId)
	]
);
