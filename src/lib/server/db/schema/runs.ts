// Long work that survives a crash: bill runs and repeats, each step keyed so that it happens once.
import { index, integer, primaryKey, sqliteTable, text, unique } from 'drizzle-orm/sqlite-core';
import type { RepeatRule } from '../../../core/calendar/recurrence';
import type { Sheet } from '../../../core/sheet/types';
import { customers } from './customers';
import { documents } from './documents';
import { jobs } from './work';

export const billRuns = sqliteTable('bill_runs', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	key: text('key').notNull().unique(),
	/** What is done with each invoice. */
	action: text('action', { enum: ['draft', 'issue', 'send'] }).notNull(),
	state: text('state', { enum: ['running', 'done'] }).notNull(),
	/** The choice it was made from, for the record. */
	choice: text('choice', { mode: 'json' }).$type<unknown>().notNull(),
	createdAt: integer('created_at').notNull(),
	endedAt: integer('ended_at')
});

export const billRunSteps = sqliteTable(
	'bill_run_steps',
	{
		runId: integer('run_id')
			.notNull()
			.references(() => billRuns.id, { onDelete: 'cascade' }),
		position: integer('position').notNull(),
		customerId: integer('customer_id').notNull(),
		customerName: text('customer_name').notNull(),
		jobIds: text('job_ids', { mode: 'json' }).$type<number[]>().notNull(),
		/** How often each of them had been changed when the run was started. */
		worked: text('worked', { mode: 'json' }).$type<number[]>().notNull(),
		/** Pence, as planned. */
		total: integer('total').notNull(),
		sheet: text('sheet', { mode: 'json' }).$type<Sheet>().notNull(),
		state: text('state', { enum: ['waiting', 'drafted', 'issued', 'sent', 'skipped'] }).notNull(),
		documentId: integer('document_id').references(() => documents.id, { onDelete: 'set null' }),
		/** Why it was skipped, or stopped short of what was asked for. */
		note: text('note').notNull().default('')
	},
	(table) => [primaryKey({ columns: [table.runId, table.position] })]
);

export const repeats = sqliteTable(
	'repeats',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		name: text('name').notNull(),
		customerId: integer('customer_id')
			.notNull()
			.references(() => customers.id),
		jobId: integer('job_id').references(() => jobs.id),
		rule: text('rule', { mode: 'json' }).$type<RepeatRule>().notNull(),
		/** `{month}`, `{quarter}`, `{year}`, `{date}` in its lines say when. */
		sheet: text('sheet', { mode: 'json' }).$type<Sheet>().notNull(),
		action: text('action', { enum: ['draft', 'send', 'charge'] }).notNull(),
		state: text('state', { enum: ['active', 'paused', 'asking', 'ended'] }).notNull(),
		/** Nominal days left out. */
		skipped: text('skipped', { mode: 'json' }).$type<string[]>().notNull().default([]),
		/** Nothing before this day is made any more: where it was begun, changed or taken up again. */
		madeFrom: text('made_from').notNull(),
		version: integer('version').notNull().default(1),
		createdAt: integer('created_at').notNull()
	},
	(table) => [index('repeats_by_state').on(table.state)]
);

/** From a nominal day on, another sheet. The latest one that has begun holds. */
export const repeatChanges = sqliteTable(
	'repeat_changes',
	{
		repeatId: integer('repeat_id')
			.notNull()
			.references(() => repeats.id, { onDelete: 'cascade' }),
		from: text('from').notNull(),
		sheet: text('sheet', { mode: 'json' }).$type<Sheet>().notNull()
	},
	(table) => [primaryKey({ columns: [table.repeatId, table.from] })]
);

/** One row for each occurrence made: the key is the promise that none is made twice. */
export const repeatOccurrences = sqliteTable(
	'repeat_occurrences',
	{
		repeatId: integer('repeat_id')
			.notNull()
			.references(() => repeats.id),
		nominal: text('nominal').notNull(),
		date: text('date').notNull(),
		documentId: integer('document_id').references(() => documents.id, { onDelete: 'set null' }),
		state: text('state', {
			enum: ['drafted', 'issued', 'sent', 'charging', 'paid', 'open']
		}).notNull(),
		attempts: integer('attempts').notNull().default(0),
		nextAttemptOn: text('next_attempt_on'),
		note: text('note').notNull().default('')
	},
	(table) => [
		primaryKey({ columns: [table.repeatId, table.nominal] }),
		index('repeat_occurrences_by_state').on(table.state, table.nextAttemptOn)
	]
);

/** A card the customer let be kept: the processor's token and what a person recognises it by. */
export const savedCards = sqliteTable(
	'saved_cards',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		customerId: integer('customer_id')
			.notNull()
			.references(() => customers.id),
		token: text('token').notNull(),
		lastDigits: text('last_digits').notNull(),
		consentAt: integer('consent_at').notNull(),
		revokedAt: integer('revoked_at'),
		revokedBy: text('revoked_by', { enum: ['you', 'customer'] })
	},
	(table) => [
		unique('saved_cards_token').on(table.token),
		index('saved_cards_by_customer').on(table.customerId, table.revokedAt)
	]
);

/** A code that was mailed to a customer, so that nobody else sees or takes back its kept card. Only a hash of it is kept. */
export const cardCodes = sqliteTable('card_codes', {
	customerId: integer('customer_id')
		.primaryKey()
		.references(() => customers.id, { onDelete: 'cascade' }),
	codeHash: text('code_hash').notNull(),
	madeAt: integer('made_at').notNull(),
	tries: integer('tries').notNull().default(0)
});

/** A sheet kept to begin others from. */
export const startingPoints = sqliteTable('starting_points', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	name: text('name').notNull().unique(),
	sheet: text('sheet', { mode: 'json' }).$type<Sheet>().notNull(),
	updatedAt: integer('updated_at').notNull()
});
