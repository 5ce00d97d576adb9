// What goes to and comes from outside services: mail, card checkouts and their webhooks.
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { customers } from './customers';
import { documents, rehearsals } from './documents';
import { statements } from './statements';

/** The outbox. A row is written in the transaction that causes it, so a message is never lost. */
export const mails = sqliteTable(
	'mails',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** Names the cause, so that it goes out once. */
		key: text('key').notNull().unique(),
		kind: text('kind', {
			enum: ['invoice', 'creditNote', 'rehearsal', 'receipt', 'paidNotice', 'statement']
		}).notNull(),
		documentId: integer('document_id').references(() => documents.id),
		rehearsalId: integer('rehearsal_id').references(() => rehearsals.id, { onDelete: 'cascade' }),
		statementId: integer('statement_id').references(() => statements.id),
		to: text('to').notNull(),
		bcc: text('bcc').notNull().default(''),
		subject: text('subject').notNull(),
		text: text('text').notNull(),
		html: text('html').notNull(),
		attachPdf: integer('attach_pdf', { mode: 'boolean' }).notNull().default(false),
		messageId: text('message_id').notNull().unique(),
		/** `unsure`: the line broke after the message was handed over and before the server said yes. */
		state: text('state', { enum: ['queued', 'sending', 'sent', 'failed', 'unsure'] }).notNull(),
		attempts: integer('attempts').notNull().default(0),
		nextAttemptAt: integer('next_attempt_at').notNull(),
		lastError: text('last_error').notNull().default(''),
		createdAt: integer('created_at').notNull(),
		sentAt: integer('sent_at')
	},
	(table) => [
		index('mails_by_state').on(table.state, table.nextAttemptAt),
		index('mails_by_document').on(table.documentId)
	]
);

export const checkouts = sqliteTable(
	'checkouts',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		documentId: integer('document_id').references(() => documents.id),
		rehearsalId: integer('rehearsal_id').references(() => rehearsals.id, { onDelete: 'cascade' }),
		/** A payment of several invoices, or of a whole balance: who pays, and through which statement. */
		payerId: integer('payer_id').references(() => customers.id),
		statementId: integer('statement_id').references(() => statements.id),
		/** What is for which invoice, as it was chosen. */
		shares: text('shares', { mode: 'json' }).$type<{ documentId: number; amount: number }[]>(),
		amount: integer('amount').notNull(),
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
