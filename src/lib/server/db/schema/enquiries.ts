// Enquiries: who asks, where, for what, by when; the owner's own questions, and the public page they come in by.
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { customers } from './customers';
import { workKinds } from './letterheads';
import { jobs } from './work';

export const ENQUIRY_STATES = ['open', 'answered', 'visit', 'quoted', 'job', 'closed'] as const;
export const QUESTION_KINDS = ['text', 'number', 'choice', 'yesNo'] as const;

export interface Answer {
	question: string;
	answer: string;
}

export const enquiries = sqliteTable(
	'enquiries',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Names the press of the button that made it. */
		key: text('key').notNull().unique(),
		state: text('state', { enum: ENQUIRY_STATES }).notNull(),
		/** By the owner's hand, or through the page. */
		came: text('came', { enum: ['hand', 'page'] }).notNull(),
		customerId: integer('customer_id').references(() => customers.id),
		name: text('name').notNull(),
		email: text('email').notNull().default(''),
		phone: text('phone').notNull().default(''),
		/** Where the work is. */
		place: text('place').notNull().default(''),
		what: text('what').notNull(),
		/** By when, in their words. */
		wanted: text('wanted').notNull().default(''),
		/** How they found us. */
		source: text('source').notNull().default(''),
		workKindId: integer('work_kind_id').references(() => workKinds.id),
		answers: text('answers', { mode: 'json' }).$type<Answer[]>().notNull().default([]),
		/** The owner's own, which the asker never sees. */
		note: text('note').notNull().default(''),
		/** Looked at, or done: a job of its own, until a quote of it is accepted. */
		jobId: integer('job_id').references(() => jobs.id),
		reason: text('reason').notNull().default(''),
		version: integer('version').notNull().default(1),
		createdAt: integer('created_at').notNull(),
		/** When it was last answered in any way. */
		movedAt: integer('moved_at').notNull()
	},
	(table) => [
		index('enquiries_by_state').on(table.state, table.movedAt),
		index('enquiries_by_customer').on(table.customerId),
		index('enquiries_by_job').on(table.jobId)
	]
);

/** What is asked for one kind of work, or always. */
export const enquiryQuestions = sqliteTable('enquiry_questions', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	workKindId: integer('work_kind_id').references(() => workKinds.id),
	position: integer('position').notNull(),
	question: text('question').notNull(),
	kind: text('kind', { enum: QUESTION_KINDS }).notNull(),
	unit: text('unit').notNull().default(''),
	options: text('options', { mode: 'json' }).$type<string[]>().notNull().default([])
});

/** The public page; one row. */
export const enquiryPage = sqliteTable('enquiry_page', {
	id: integer('id').primaryKey(),
	token: text('token').notNull().unique(),
	on: integer('on', { mode: 'boolean' }).notNull(),
	intro: text('intro').notNull().default(''),
	next: text('next').notNull().default('')
});
