// What is known about money still owed: disputes, promises, calls; chase plans and what they sent; terms for late debts.
import { sql } from 'drizzle-orm';
import {
	blob,
	check,
	index,
	integer,
	primaryKey,
	sqliteTable,
	text
} from 'drizzle-orm/sqlite-core';
import { DEBTORS } from '../../../core/chasing/claim';
import { CHANNELS, TONES, type ChaseStep } from '../../../core/chasing/types';
import { customers } from './customers';
import { documents } from './documents';

export const HOLD_KINDS = ['dispute', 'promise'] as const;

/** An invoice that is not chased: it is disputed, or its payment is promised by a day. Ended rows stay as history. */
export const holds = sqliteTable(
	'holds',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id),
		kind: text('kind', { enum: HOLD_KINDS }).notNull(),
		/** The day a promise is for. */
		until: text('until'),
		note: text('note').notNull().default(''),
		createdAt: integer('created_at').notNull(),
		endedAt: integer('ended_at')
	},
	(table) => [index('holds_by_document').on(table.documentId, table.endedAt)]
);

/** A debtor's breathing space: no interest, fee or reminder on any of its days. */
export const breathingSpaces = sqliteTable(
	'breathing_spaces',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		customerId: integer('customer_id')
			.notNull()
			.references(() => customers.id),
		from: text('from').notNull(),
		/** The last day; earlier than the sixtieth where it was ended. */
		to: text('to').notNull(),
		/** The reference of the notice. */
		note: text('note').notNull().default(''),
		recordedAt: integer('recorded_at').notNull()
	},
	(table) => [index('breathing_spaces_by_customer').on(table.customerId, table.from)]
);

/** Notes of calls and talks with a payer. */
export const callNotes = sqliteTable(
	'call_notes',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		customerId: integer('customer_id')
			.notNull()
			.references(() => customers.id),
		at: integer('at').notNull(),
		text: text('text').notNull()
	},
	(table) => [index('call_notes_by_customer').on(table.customerId, table.at)]
);

/** The Bank of England's base rate for each half year, in percent, as the Late Payment Act refers to it. */
export const referenceRates = sqliteTable('reference_rates', {
	from: text('from').primaryKey(),
	rate: text('rate').notNull()
});

/** What a customer agreed to for late payment. A remedy of the contract's own stands in place of the Act (s.8). */
export const lateTerms = sqliteTable('late_terms', {
	customerId: integer('customer_id')
		.primaryKey()
		.references(() => customers.id),
	/** Added once when it is late by `afterDays`. Pence. */
	fee: integer('fee').notNull().default(0),
	/** Simple interest, percent a year; null: none. */
	rate: text('rate'),
	afterDays: integer('after_days').notNull().default(0),
	/** The words of the contract, as they go on documents. */
	terms: text('terms').notNull(),
	recordedAt: integer('recorded_at').notNull()
});

export const chasePlans = sqliteTable('chase_plans', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	name: text('name').notNull(),
	/** What is chased with it; quotes come later. */
	about: text('about', { enum: ['invoice'] })
		.notNull()
		.default('invoice'),
	steps: text('steps', { mode: 'json' }).$type<ChaseStep[]>().notNull(),
	/** Customers with one of these labels have this plan, unless they have one of their own. */
	labels: text('labels', { mode: 'json' }).$type<string[]>().notNull().default([]),
	/** The plan of everybody else: one at most. */
	standard: integer('standard', { mode: 'boolean' }).notNull().default(false),
	/** Days after due from which interest is charged without asking; null: only when the owner says so. */
	chargeAfter: integer('charge_after'),
	version: integer('version').notNull().default(1),
	updatedAt: integer('updated_at').notNull(),
	archivedAt: integer('archived_at')
});

/** Where a payer differs from the rest. */
export const customerChasing = sqliteTable('customer_chasing', {
	customerId: integer('customer_id')
		.primaryKey()
		.references(() => customers.id),
	/** Null: by label, or the standard plan. */
	planId: integer('plan_id').references(() => chasePlans.id),
	never: integer('never', { mode: 'boolean' }).notNull().default(false),
	onHold: integer('on_hold', { mode: 'boolean' }).notNull().default(false),
	note: text('note').notNull().default('')
});

export const chaseSettings = sqliteTable(
	'chase_settings',
	{
		id: integer('id').primaryKey(),
		on: integer('on', { mode: 'boolean' }).notNull().default(false),
		/** Minutes after midnight in London. */
		hoursFrom: integer('hours_from').notNull().default(540),
		hoursTo: integer('hours_to').notNull().default(1020),
		quietHours: integer('quiet_hours').notNull().default(24),
		gapDays: integer('gap_days').notNull().default(4)
	},
	(table) => [check('one_chase_settings', sql`${table.id} = 1`)]
);

/** Words changed for the next message of a step to one payer; used up by it. */
export const chaseWordings = sqliteTable(
	'chase_wordings',
	{
		payerId: integer('payer_id')
			.notNull()
			.references(() => customers.id),
		stepId: text('step_id').notNull(),
		subject: text('subject').notNull(),
		text: text('text').notNull()
	},
	(table) => [primaryKey({ columns: [table.payerId, table.stepId] })]
);

export const chaseMessages = sqliteTable(
	'chase_messages',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Names the cause, so that it goes out once. */
		key: text('key').notNull().unique(),
		payerId: integer('payer_id')
			.notNull()
			.references(() => customers.id),
		planId: integer('plan_id').references(() => chasePlans.id),
		stepId: text('step_id').notNull(),
		tone: text('tone', { enum: TONES }).notNull(),
		/** A letter of claim, and to whom; null: it is none. */
		claim: text('claim', { enum: DEBTORS }),
		channel: text('channel', { enum: CHANNELS }).notNull(),
		/** The day it is for. */
		day: text('day').notNull(),
		who: text('who', { enum: ['you', 'axiometer'] }).notNull(),
		to: text('to').notNull(),
		subject: text('subject').notNull(),
		text: text('text').notNull(),
		/** What it asks for. Pence. */
		amount: integer('amount').notNull(),
		items: text('items', { mode: 'json' })
			.$type<{ documentId: number; toPay: number }[]>()
			.notNull(),
		/** Marks its links, so that it is seen whether they were opened. */
		token: text('token').notNull().unique(),
		/** `withdrawn`: it was overtaken before it went. */
		state: text('state', { enum: ['out', 'toPost', 'posted', 'withdrawn'] }).notNull(),
		pdf: blob('pdf', { mode: 'buffer' }),
		createdAt: integer('created_at').notNull(),
		openedAt: integer('opened_at')
	},
	(table) => [
		index('chase_messages_by_payer').on(table.payerId, table.day),
		index('chase_messages_by_state').on(table.state)
	]
);

/** Steps that are dealt with, invoice by invoice: each once. */
export const chaseDone = sqliteTable(
	'chase_done',
	{
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id),
		stepId: text('step_id').notNull(),
		offset: integer('offset').notNull(),
		how: text('how', { enum: ['sent', 'overtaken', 'skipped'] }).notNull(),
		messageId: integer('message_id').references(() => chaseMessages.id),
		at: integer('at').notNull()
	},
	(table) => [
		primaryKey({ columns: [table.documentId, table.stepId] }),
		index('chase_done_by_message').on(table.messageId)
	]
);
