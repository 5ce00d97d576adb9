// Quotes: as they are written, the versions that went out, what was said to them, and what was accepted.
import { blob, index, integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { Frozen } from '../../../core/documents/types';
import type { QuotePlan } from '../../../core/quotes/plan';
import type { Picked } from '../../../core/quotes/chosen';
import type { Sheet } from '../../../core/sheet/types';
import { customers } from './customers';
import { documents } from './documents';
import { enquiries } from './enquiries';
import { workKinds } from './letterheads';
import { payments } from './ledger';
import { jobs } from './work';

export const QUOTE_STATES = [
	'draft',
	'sent',
	'accepted',
	'declined',
	'withdrawn',
	'cancelled',
	'discarded'
] as const;

/** Amounts in pence. */
export const quotes = sqliteTable(
	'quotes',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Names the press of the button that made it. */
		key: text('key').notNull().unique(),
		/** Given when it first goes out. */
		number: text('number').unique(),
		running: integer('running'),
		state: text('state', { enum: QUOTE_STATES }).notNull(),
		customerId: integer('customer_id').references(() => customers.id, { onDelete: 'set null' }),
		customerName: text('customer_name').notNull().default(''),
		title: text('title').notNull().default(''),
		workKindId: integer('work_kind_id').references(() => workKinds.id),
		/** What it answers. */
		enquiryId: integer('enquiry_id').references(() => enquiries.id),
		/** Extra or lesser work on this job. */
		forJobId: integer('for_job_id').references(() => jobs.id),
		/** The job that came of it. */
		jobId: integer('job_id').references(() => jobs.id),
		/** As it is written now: of one that went out, what the next version will be. */
		sheet: text('sheet', { mode: 'json' }).$type<Sheet>().notNull(),
		version: integer('version').notNull().default(1),
		/** The version that was sent last; 0: none. */
		sent: integer('sent').notNull().default(0),
		sentAt: integer('sent_at'),
		/** The unguessable part of its page's address. */
		token: text('token').notNull().unique(),
		validUntil: text('valid_until'),
		openedAt: integer('opened_at'),
		answeredAt: integer('answered_at'),
		/** It is not reminded of. */
		quiet: integer('quiet', { mode: 'boolean' }).notNull().default(false),
		/** Why it was declined or withdrawn. */
		reason: text('reason').notNull().default(''),
		total: integer('total').notNull().default(0),
		lowest: integer('lowest'),
		highest: integer('highest'),
		createdAt: integer('created_at').notNull(),
		updatedAt: integer('updated_at').notNull()
	},
	(table) => [
		index('quotes_by_state').on(table.state, table.sentAt),
		index('quotes_by_customer').on(table.customerId),
		index('quotes_by_job').on(table.jobId),
		index('quotes_for_job').on(table.forJobId),
		index('quotes_by_enquiry').on(table.enquiryId)
	]
);

/** What went out, as it went out: triggers refuse any change. */
export const quoteVersions = sqliteTable(
	'quote_versions',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		quoteId: integer('quote_id')
			.notNull()
			.references(() => quotes.id),
		n: integer('n').notNull(),
		frozen: text('frozen', { mode: 'json' }).$type<Frozen>().notNull(),
		validUntil: text('valid_until').notNull(),
		total: integer('total').notNull(),
		name: text('name').notNull(),
		sha256: text('sha256').notNull(),
		content: blob('content', { mode: 'buffer' }).notNull(),
		sentAt: integer('sent_at').notNull()
	},
	(table) => [uniqueIndex('quote_versions_once').on(table.quoteId, table.n)]
);

export const quoteTrail = sqliteTable(
	'quote_trail',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		quoteId: integer('quote_id')
			.notNull()
			.references(() => quotes.id, { onDelete: 'cascade' }),
		at: integer('at').notNull(),
		/** Which of those who may sign in; null: the customer, or the house itself. */
		personId: integer('person_id'),
		what: text('what').notNull(),
		detail: text('detail').notNull().default('')
	},
	(table) => [index('quote_trail_by_quote').on(table.quoteId, table.id)]
);

/** What the customer asked on its page. As long as one has no answer, nothing is chased. */
export const quoteQuestions = sqliteTable(
	'quote_questions',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		quoteId: integer('quote_id')
			.notNull()
			.references(() => quotes.id),
		at: integer('at').notNull(),
		question: text('question').notNull(),
		answer: text('answer').notNull().default(''),
		answeredAt: integer('answered_at')
	},
	(table) => [index('quote_questions_by_quote').on(table.quoteId)]
);

export const ACCEPTANCE_WAYS = ['page', 'spot', 'byHand'] as const;

/** What of consumer law held when it was accepted, and what was asked for. */
export interface AcceptedLaw {
	may: boolean;
	why: string;
	reference: string;
	goods: boolean;
	/** Asked, in writing, that work begins within the period; and knew that the right then ends. */
	begin: boolean;
	acknowledged: boolean;
	/** How the customer was told: on the page, on paper, by e-mail. */
	informed: 'page' | 'paper' | 'mail' | '';
}

/** The customer's yes, once for each quote. Kept for good but for what the customer's own notice ends. */
export const acceptances = sqliteTable('acceptances', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	key: text('key').notNull().unique(),
	quoteId: integer('quote_id')
		.notNull()
		.unique()
		.references(() => quotes.id),
	versionId: integer('version_id')
		.notNull()
		.references(() => quoteVersions.id),
	way: text('way', { enum: ACCEPTANCE_WAYS }).notNull(),
	name: text('name').notNull(),
	position: text('position').notNull().default(''),
	orderNumber: text('order_number').notNull().default(''),
	picked: text('picked', { mode: 'json' }).$type<Picked>().notNull(),
	/** A PNG of what was drawn; null: the name was typed, or it was said. */
	signature: blob('signature', { mode: 'buffer' }),
	at: integer('at').notNull(),
	agreedOn: text('agreed_on').notNull(),
	/** Where from: kept six years, and said so. */
	address: text('address').notNull().default(''),
	agent: text('agent').notNull().default(''),
	law: text('law', { mode: 'json' }).$type<AcceptedLaw>().notNull(),
	total: integer('total').notNull(),
	deposit: integer('deposit').notNull(),
	/** The PDF of exactly what was accepted; drawn after it. */
	record: blob('record', { mode: 'buffer' }),
	recordSha256: text('record_sha256').notNull().default(''),
	/** When the materials last came, where the period to cancel runs from there. */
	receivedOn: text('received_on'),
	/** The day the customer's notice was sent, how, and its words. */
	cancelledOn: text('cancelled_on'),
	cancelledHow: text('cancelled_how').notNull().default(''),
	cancelledAt: integer('cancelled_at')
});

/** Asks for a deposit with a pay link; no VAT invoice: that follows on the day the money comes. Pence. */
export const depositRequests = sqliteTable(
	'deposit_requests',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		quoteId: integer('quote_id')
			.notNull()
			.unique()
			.references(() => quotes.id),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id),
		payerId: integer('payer_id')
			.notNull()
			.references(() => customers.id),
		amount: integer('amount').notNull(),
		/** What a contractor keeps back of it for the tax office: asked for is the rest. */
		deduction: integer('deduction').notNull().default(0),
		state: text('state', { enum: ['asked', 'paid', 'invoiced', 'withdrawn'] }).notNull(),
		askedAt: integer('asked_at').notNull(),
		paymentId: integer('payment_id').references(() => payments.id),
		documentId: integer('document_id').references(() => documents.id)
	},
	(table) => [index('deposit_requests_by_state').on(table.state)]
);

/** A quote as the owner sent it to itself: the same page and PDF, on which nothing counts. */
export const quoteTrials = sqliteTable(
	'quote_trials',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		quoteId: integer('quote_id')
			.notNull()
			.references(() => quotes.id),
		token: text('token').notNull().unique(),
		frozen: text('frozen', { mode: 'json' }).$type<Frozen>().notNull(),
		validUntil: text('valid_until').notNull(),
		pdf: blob('pdf', { mode: 'buffer' }).notNull(),
		createdAt: integer('created_at').notNull()
	},
	(table) => [index('quote_trials_by_quote').on(table.quoteId)]
);

/** What a job's contract is paid in, as the accepted quote had it: percent of it, the last the rest. */
export const stagePlans = sqliteTable(
	'stage_plans',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		jobId: integer('job_id')
			.notNull()
			.references(() => jobs.id, { onDelete: 'cascade' }),
		position: integer('position').notNull(),
		title: text('title').notNull(),
		/** Pence, with VAT. */
		amount: integer('amount').notNull()
	},
	(table) => [index('stage_plans_by_job').on(table.jobId, table.position)]
);

/** When quotes are reminded of; without a row as the standard has it. */
export const quotePlan = sqliteTable('quote_plan', {
	id: integer('id').primaryKey(),
	steps: text('steps', { mode: 'json' }).$type<QuotePlan>().notNull()
});
