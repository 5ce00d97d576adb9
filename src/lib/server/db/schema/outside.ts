// What goes to and comes from outside services: mail, texts, card and bank payments, their news, and payouts.
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { chaseMessages } from './chase';
import { documents, trials } from './documents';
import { told } from './diary';
import { customers } from './customers';
import { depositRequests, quotes, quoteTrials } from './quotes';
import { jobSheets } from './signing';
import { statements } from './statements';

/** The outbox. A row is written in the transaction that causes it, so a message is never lost. */
export const mails = sqliteTable(
	'mails',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Names the cause, so that it goes out once. */
		key: text('key').notNull().unique(),
		kind: text('kind', {
			enum: [
				'invoice',
				'creditNote',
				'trial',
				'receipt',
				'paidNotice',
				'statement',
				'reminder',
				'notice',
				'quote',
				'quoteNews',
				'enquiry',
				'enquiryNews',
				'visit',
				'deposit',
				'jobSheet',
				'signed',
				'textReply'
			]
		}).notNull(),
		documentId: integer('document_id').references(() => documents.id),
		trialId: integer('trial_id').references(() => trials.id, { onDelete: 'cascade' }),
		statementId: integer('statement_id').references(() => statements.id),
		chaseMessageId: integer('chase_message_id').references(() => chaseMessages.id),
		quoteId: integer('quote_id').references(() => quotes.id),
		quoteTrialId: integer('quote_trial_id').references(() => quoteTrials.id),
		/** What it tells of a visit. */
		toldId: integer('told_id').references(() => told.id),
		sheetId: integer('sheet_id').references(() => jobSheets.id),
		to: text('to').notNull(),
		cc: text('cc').notNull().default(''),
		bcc: text('bcc').notNull().default(''),
		subject: text('subject').notNull(),
		text: text('text').notNull(),
		html: text('html').notNull(),
		attachPdf: integer('attach_pdf', { mode: 'boolean' }).notNull().default(false),
		/** Files of the document that go along. */
		fileIds: text('file_ids', { mode: 'json' }).$type<number[]>().notNull().default([]),
		messageId: text('message_id').notNull().unique(),
		/** `unsure`: the line broke after the message was handed over and before the server said yes. */
		state: text('state', {
			enum: ['queued', 'sending', 'sent', 'failed', 'unsure', 'withdrawn']
		}).notNull(),
		attempts: integer('attempts').notNull().default(0),
		nextAttemptAt: integer('next_attempt_at').notNull(),
		lastError: text('last_error').notNull().default(''),
		/** Who of several has not got it, with commas between: only to them it goes again. */
		missed: text('missed').notNull().default(''),
		createdAt: integer('created_at').notNull(),
		sentAt: integer('sent_at')
	},
	(table) => [
		index('mails_by_state').on(table.state, table.nextAttemptAt),
		index('mails_by_document').on(table.documentId),
		index('mails_by_time').on(table.createdAt, table.id),
		index('mails_by_chase').on(table.chaseMessageId),
		index('mails_by_quote').on(table.quoteId),
		index('mails_by_told').on(table.toldId),
		index('mails_by_sheet').on(table.sheetId)
	]
);

/** Text messages on their way. The gateway takes a key once, so trying again is safe. */
export const texts = sqliteTable(
	'texts',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		documentId: integer('document_id').references(() => documents.id),
		chaseMessageId: integer('chase_message_id').references(() => chaseMessages.id),
		/** What it tells of a visit. */
		toldId: integer('told_id').references(() => told.id),
		to: text('to').notNull(),
		text: text('text').notNull(),
		state: text('state', { enum: ['queued', 'sent', 'failed', 'withdrawn'] }).notNull(),
		/** How often it went and did not arrive: each time it is another message to the gateway. */
		round: integer('round').notNull().default(0),
		attempts: integer('attempts').notNull().default(0),
		nextAttemptAt: integer('next_attempt_at').notNull(),
		lastError: text('last_error').notNull().default(''),
		createdAt: integer('created_at').notNull(),
		sentAt: integer('sent_at')
	},
	(table) => [
		index('texts_by_state').on(table.state, table.nextAttemptAt),
		index('texts_by_chase').on(table.chaseMessageId),
		index('texts_by_time').on(table.createdAt, table.id),
		index('texts_by_document').on(table.documentId),
		index('texts_by_told').on(table.toldId),
		index('texts_by_number').on(table.to, table.id)
	]
);

/** What came back by text. */
export const textReplies = sqliteTable(
	'text_replies',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** The gateway's own name of it: once taken, once kept. */
		eventId: text('event_id').notNull().unique(),
		/** The number it came from. */
		from: text('from').notNull(),
		text: text('text').notNull(),
		at: integer('at').notNull(),
		/** Whose number it is; null: nobody's who is known. */
		customerId: integer('customer_id').references(() => customers.id, { onDelete: 'set null' }),
		/** The last that went to that number. */
		textId: integer('text_id').references(() => texts.id),
		seenAt: integer('seen_at')
	},
	(table) => [
		index('text_replies_by_seen').on(table.seenAt, table.id),
		index('text_replies_by_customer').on(table.customerId)
	]
);

/** Numbers whose owner asked for no more texts. */
export const textStops = sqliteTable('text_stops', {
	number: text('number').primaryKey(),
	at: integer('at').notNull()
});

export const checkouts = sqliteTable(
	'checkouts',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		documentId: integer('document_id').references(() => documents.id),
		trialId: integer('trial_id').references(() => trials.id, { onDelete: 'cascade' }),
		/** A payment of several invoices, or of a whole balance: who pays, and through which statement. */
		payerId: integer('payer_id').references(() => customers.id),
		statementId: integer('statement_id').references(() => statements.id),
		/** Or through a reminder about several. */
		chaseMessageId: integer('chase_message_id').references(() => chaseMessages.id),
		/** Or the deposit of a quote that was accepted. */
		depositId: integer('deposit_id').references(() => depositRequests.id),
		/** What is for which invoice, as it was chosen. */
		shares: text('shares', { mode: 'json' }).$type<{ documentId: number; amount: number }[]>(),
		amount: integer('amount').notNull(),
		/** By card at the processor, or from the payer's own bank. */
		way: text('way', { enum: ['card', 'bank'] })
			.notNull()
			.default('card'),
		processorId: text('processor_id').notNull().unique(),
		state: text('state', { enum: ['open', 'pending', 'settled', 'declined'] }).notNull(),
		createdAt: integer('created_at').notNull()
	},
	(table) => [index('checkouts_by_document').on(table.documentId)]
);

/** Events of the card processor, by its own id: the second time changes nothing. */
export const webhookEvents = sqliteTable('webhook_events', {
	id: text('id').primaryKey(),
	type: text('type').notNull(),
	receivedAt: integer('received_at').notNull(),
	body: text('body').notNull()
});

/** Signed news that does not fit the books: not booked, and asked about. */
export const oddNews = sqliteTable('odd_news', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	eventId: text('event_id').notNull().unique(),
	type: text('type').notNull(),
	/** Pence. */
	amount: integer('amount').notNull(),
	/** What does not fit, in words. */
	why: text('why').notNull(),
	body: text('body').notNull(),
	receivedAt: integer('received_at').notNull(),
	/** Null while it is asked about. */
	decision: text('decision', { enum: ['taken', 'dismissed'] }),
	decidedAt: integer('decided_at')
});

/** What the card processor sent to the bank, and what it is made of. Amounts in pence. */
export const payouts = sqliteTable('payouts', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	processorId: text('processor_id').notNull().unique(),
	/** The day the processor sent it. */
	date: text('date').notNull(),
	amount: integer('amount').notNull(),
	/** What stands in the bank's text. */
	reference: text('reference').notNull(),
	/** The bank line it was seen in. */
	seenOn: text('seen_on'),
	recordedAt: integer('recorded_at').notNull()
});

export const payoutParts = sqliteTable(
	'payout_parts',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		payoutId: integer('payout_id')
			.notNull()
			.references(() => payouts.id),
		/** The checkout the money came through. */
		checkout: text('checkout').notNull(),
		type: text('type', { enum: ['payment', 'refund'] }).notNull(),
		/** Before the fee; below zero for a refund. */
		amount: integer('amount').notNull(),
		fee: integer('fee').notNull()
	},
	(table) => [
		index('payout_parts_by_payout').on(table.payoutId),
		index('payout_parts_by_checkout').on(table.checkout)
	]
);

/** A card payment that its customer disputes with its bank. Amounts in pence. */
export const cardDisputes = sqliteTable(
	'card_disputes',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** The processor's own name for it. */
		dispute: text('dispute').notNull().unique(),
		checkout: text('checkout').notNull(),
		/** The invoice it paid, or the first of those it paid. */
		documentId: integer('document_id').references(() => documents.id),
		amount: integer('amount').notNull(),
		reason: text('reason').notNull(),
		/** The last day on which evidence is taken. */
		respondBy: text('respond_by').notNull(),
		state: text('state', { enum: ['open', 'answered', 'won', 'lost'] }).notNull(),
		openedAt: integer('opened_at').notNull(),
		endedAt: integer('ended_at')
	},
	(table) => [
		index('card_disputes_by_document').on(table.documentId),
		index('card_disputes_by_state').on(table.state)
	]
);
