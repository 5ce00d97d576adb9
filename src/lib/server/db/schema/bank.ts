// Bank statements that came in, line by line, and what is remembered to match them.
import { blob, index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { CsvLayout } from '../../../core/formats/bank/headings';
import type { Proposal } from '../../../core/bank/types';
import { customers } from './customers';
import { payments } from './ledger';
import { payouts } from './outside';

/** A proposal as JSON has it: what is accepted when it is sure. Amounts in pence. */
export interface KeptProposal extends Pick<Proposal, 'payerId' | 'score' | 'sure' | 'recorded'> {
	shares: { documentId: number; amount: number; withheld: number | null }[];
}

export const bankImports = sqliteTable('bank_imports', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	name: text('name').notNull(),
	format: text('format').notNull(),
	/** `asking`: the columns of a CSV file are to be confirmed first. */
	state: text('state', { enum: ['asking', 'done'] }).notNull(),
	/** Kept only while it is asked about. */
	content: blob('content', { mode: 'buffer' }),
	added: integer('added').notNull().default(0),
	known: integer('known').notNull().default(0),
	unread: integer('unread').notNull().default(0),
	createdAt: integer('created_at').notNull()
});

export const bankLines = sqliteTable(
	'bank_lines',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** By content and account, so that overlapping files bring nothing twice. */
		key: text('key').notNull().unique(),
		importId: integer('import_id')
			.notNull()
			.references(() => bankImports.id),
		account: text('account').notNull(),
		date: text('date').notNull(),
		/** Pence; above zero came in. */
		amount: integer('amount').notNull(),
		text: text('text').notNull(),
		payer: text('payer').notNull(),
		reversal: integer('reversal', { mode: 'boolean' }).notNull().default(false),
		state: text('state', { enum: ['open', 'accepted', 'notBusiness'] }).notNull(),
		paymentId: integer('payment_id').references(() => payments.id),
		/** It shows a payment that was recorded before: taking that back leaves the payment as it is. */
		tied: integer('tied', { mode: 'boolean' }).notNull().default(false),
		/** It shows a payout of the card processor. */
		payoutId: integer('payout_id').references(() => payouts.id),
		/** How often it was accepted: each time is a payment of its own. */
		times: integer('times').notNull().default(0),
		/** The best proposal when it was last looked for. */
		proposal: text('proposal', { mode: 'json' }).$type<KeptProposal>(),
		decidedAt: integer('decided_at')
	},
	(table) => [
		index('bank_lines_by_state').on(table.state, table.date),
		index('bank_lines_by_payment').on(table.paymentId)
	]
);

/** Names under which payers have paid before. */
export const payerNames = sqliteTable('payer_names', {
	name: text('name').primaryKey(),
	payerId: integer('payer_id')
		.notNull()
		.references(() => customers.id),
	learnedAt: integer('learned_at').notNull()
});

/** Columns of CSV files, confirmed once, by their headings. */
export const csvLayouts = sqliteTable('csv_layouts', {
	headings: text('headings').primaryKey(),
	layout: text('layout', { mode: 'json' }).$type<CsvLayout>().notNull(),
	account: text('account').notNull()
});
