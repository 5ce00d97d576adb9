// The journal, what stands open, and the payments behind it. Amounts in pence.
import { sql } from 'drizzle-orm';
import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { CURRENCIES } from '../../../core/money/currencies';
import { customers } from './customers';
import { documents } from './documents';

export const ACCOUNTS = [
	'receivable',
	'sales',
	/** Interest, fixed sums and agreed fees for lateness: income that is no supply. */
	'lateCharges',
	'vatOutput',
	'bank',
	'cash',
	'cardClearing',
	'cardFees',
	'cisWithheld',
	/** What came in, or was credited, and stands against no invoice yet: owed to the payer. */
	'customerCredit',
	'badDebts',
	/** VAT of bad debts, to be claimed back. */
	'vatRelief',
	/** What the books before had when they were carried over: income and VAT that counted there. */
	'opening',
	/** What pounds came to more or less than a document's rate had it. */
	'exchange'
] as const;
export type Account = (typeof ACCOUNTS)[number];

export const PAYMENT_WAYS = ['bank', 'card', 'cash', 'cheque'] as const;
/** Recorded by hand, told by the service a checkout went through, read from a bank statement, or carried over from other books. */
export const PAYMENT_SOURCES = ['hand', 'checkout', 'bankLine', 'opening'] as const;
export type PaymentSource = (typeof PAYMENT_SOURCES)[number];
export type PaymentWay = (typeof PAYMENT_WAYS)[number];

/** A balanced set of postings. Triggers refuse update and delete; a mistake is reversed by a new entry. */
export const journalEntries = sqliteTable('journal_entries', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	/** Names the event, so that it posts once: `issue:17`, `payment:4` … */
	key: text('key').notNull().unique(),
	event: text('event', {
		enum: [
			'issue',
			'credit',
			'payment',
			'refund',
			'reversal',
			'apply',
			'writeOff',
			'payout',
			'relief'
		]
	}).notNull(),
	date: text('date').notNull(),
	documentId: integer('document_id').references(() => documents.id),
	recordedAt: integer('recorded_at').notNull()
});

export const journalLines = sqliteTable(
	'journal_lines',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		entryId: integer('entry_id')
			.notNull()
			.references(() => journalEntries.id),
		account: text('account', { enum: ACCOUNTS }).notNull(),
		/** Debit above zero, credit below, in minor units of the currency. The lines of an entry add up to zero. */
		amount: integer('amount').notNull(),
		currency: text('currency', { enum: CURRENCIES }).notNull().default('GBP'),
		/** The same in pence sterling. */
		sterling: integer('sterling').notNull(),
		documentId: integer('document_id').references(() => documents.id),
		customerId: integer('customer_id'),
		/** Sales of a job, so that its margin is read from the journal. */
		jobId: integer('job_id'),
		/** Of VAT: the tax point, which decides its period. Null: that of its document. */
		taxPoint: text('tax_point'),
		/** Of a deduction: the day the contractor paid, which decides its tax month. Null: the entry's own day. */
		paidOn: text('paid_on')
	},
	(table) => [
		index('journal_lines_by_job').on(table.jobId),
		index('journal_lines_by_entry').on(table.entryId),
		index('journal_lines_by_document').on(table.documentId, table.account),
		index('journal_lines_by_account').on(table.account)
	]
);

/** The part of an invoice's sterling that goes with a part of its own money: half a penny up. Nothing here is below zero. */
const inPence = (column: 'outstanding' | 'to_pay' | 'overpaid') =>
	sql.raw(
		`(case when currency = 'GBP' or total = 0 then ${column} else (2 * ${column} * total_sterling + total) / (2 * total) end)`
	);

/** Where each issued invoice stands, kept in the journal's transaction for speed; the audit recomputes it. */
export const openItems = sqliteTable(
	'open_items',
	{
		documentId: integer('document_id')
			.primaryKey()
			.references(() => documents.id),
		customerId: integer('customer_id')
			.notNull()
			.references(() => customers.id),
		/** Who is asked for the money: the bill-to, or the customer itself. */
		payerId: integer('payer_id').notNull().default(0),
		issueDate: text('issue_date').notNull(),
		dueDate: text('due_date').notNull(),
		currency: text('currency', { enum: CURRENCIES }).notNull().default('GBP'),
		total: integer('total').notNull(),
		totalSterling: integer('total_sterling').notNull(),
		/** What the contractor is still expected to deduct in all; null where CIS does not apply. */
		deduction: integer('deduction'),
		cash: integer('cash').notNull().default(0),
		withheld: integer('withheld').notNull().default(0),
		credited: integer('credited').notNull().default(0),
		writtenOff: integer('written_off').notNull().default(0),
		outstanding: integer('outstanding').notNull(),
		/** What is still to be sent: outstanding less what may yet be deducted. */
		toPay: integer('to_pay').notNull(),
		/** The customer has it: it was sent, handed over, or opened. */
		reached: integer('reached', { mode: 'boolean' }).notNull().default(false),
		overpaid: integer('overpaid').notNull().default(0),
		/** What of it is cash, to be given back or used elsewhere; the rest is a deduction that goes with it. */
		inHand: integer('in_hand').notNull().default(0),
		/** In pence, at the rate of its tax point. */
		outstandingSterling: integer('outstanding_sterling').generatedAlwaysAs(inPence('outstanding')),
		overpaidSterling: integer('overpaid_sterling').generatedAlwaysAs(inPence('overpaid')),
		toPaySterling: integer('to_pay_sterling').generatedAlwaysAs(inPence('to_pay')),
		state: text('state', {
			enum: ['open', 'partPaid', 'paid', 'credited', 'writtenOff']
		}).notNull(),
		settledOn: text('settled_on')
	},
	(table) => [
		index('open_items_by_state').on(table.state, table.issueDate, table.documentId),
		/** What stands open, the one due first, first: for lists, for lateness, and for who owes it. */
		index('open_items_open')
			.on(table.dueDate, table.documentId, table.payerId, table.toPay)
			.where(sql`state in ('open', 'partPaid')`),
		index('open_items_unsent').on(table.reached, table.state, table.toPay),
		index('open_items_in_hand')
			.on(table.payerId, table.inHand)
			.where(sql`in_hand > 0`),
		index('open_items_by_customer').on(table.customerId, table.state),
		index('open_items_by_payer').on(table.payerId, table.state)
	]
);

export const payments = sqliteTable(
	'payments',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		/** The form press or the processor's payment, so that it is recorded once. */
		key: text('key').notNull().unique(),
		/** Who paid; what no allocation uses of it is the payer's credit. Null before payers were recorded. */
		payerId: integer('payer_id').references(() => customers.id),
		date: text('date').notNull(),
		currency: text('currency', { enum: CURRENCIES }).notNull().default('GBP'),
		amount: integer('amount').notNull(),
		/** What it came to in pounds: what the bank had of it. */
		amountSterling: integer('amount_sterling').notNull(),
		way: text('way', { enum: PAYMENT_WAYS }).notNull(),
		/** How it was learned of. */
		source: text('source', { enum: PAYMENT_SOURCES }).notNull(),
		reference: text('reference').notNull().default(''),
		/** What the card processor kept. */
		fee: integer('fee').notNull().default(0),
		/** The card fee the payer bore on top, at cost; a document of its own bills it. Part of `amount`. */
		feeOnTop: integer('fee_on_top').notNull().default(0),
		recordedAt: integer('recorded_at').notNull()
	},
	(table) => [
		index('payments_by_payer').on(table.payerId),
		index('payments_by_date').on(table.date, table.id),
		index('payments_by_reference').on(table.reference)
	]
);

export const allocations = sqliteTable(
	'allocations',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		paymentId: integer('payment_id')
			.notNull()
			.references(() => payments.id),
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id),
		amount: integer('amount').notNull(),
		/** What the payer stated it withheld; null where it was worked out. */
		withheldStated: integer('withheld_stated'),
		/** The day credit on the account was applied; null: with the payment itself. */
		appliedOn: text('applied_on'),
		/** The press that applied it; null: the payment's own. */
		key: text('key').unique()
	},
	(table) => [
		index('allocations_by_payment').on(table.paymentId),
		index('allocations_by_document').on(table.documentId)
	]
);

/** What was paid or credited beyond one invoice, used for another of the same payer. */
export const transfers = sqliteTable(
	'transfers',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		fromId: integer('from_id')
			.notNull()
			.references(() => documents.id),
		toId: integer('to_id')
			.notNull()
			.references(() => documents.id),
		date: text('date').notNull(),
		amount: integer('amount').notNull(),
		/** What was withheld from it when it was paid: it goes along. */
		withheld: integer('withheld').notNull().default(0),
		/** The day on which it was paid: the tax month of what was withheld. Null: the day it was moved. */
		paidOn: text('paid_on'),
		recordedAt: integer('recorded_at').notNull()
	},
	(table) => [index('transfers_by_from').on(table.fromId), index('transfers_by_to').on(table.toId)]
);

/** Money that was moved goes back where it came from, because the payment it was of is undone. */
export const transferReversals = sqliteTable('transfer_reversals', {
	transferId: integer('transfer_id')
		.primaryKey()
		.references(() => transfers.id),
	recordedAt: integer('recorded_at').notNull()
});

/** Credit on the account given back to the payer, out of a payment that no invoice used up. */
export const creditReturns = sqliteTable(
	'credit_returns',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		paymentId: integer('payment_id')
			.notNull()
			.references(() => payments.id),
		date: text('date').notNull(),
		amount: integer('amount').notNull(),
		way: text('way', { enum: PAYMENT_WAYS }).notNull(),
		reference: text('reference').notNull().default(''),
		recordedAt: integer('recorded_at').notNull()
	},
	(table) => [index('credit_returns_by_payment').on(table.paymentId)]
);

/** Debts given up, with the reason; a row below zero takes up again what was paid after all or given up by mistake. */
export const writeOffs = sqliteTable(
	'write_offs',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id),
		date: text('date').notNull(),
		amount: integer('amount').notNull(),
		reason: text('reason').notNull(),
		recordedAt: integer('recorded_at').notNull()
	},
	(table) => [index('write_offs_by_document').on(table.documentId)]
);

/** A payment recorded by mistake is undone by a row here and a reversing journal entry. */
export const paymentReversals = sqliteTable('payment_reversals', {
	paymentId: integer('payment_id')
		.primaryKey()
		.references(() => payments.id),
	reason: text('reason').notNull().default(''),
	recordedAt: integer('recorded_at').notNull()
});

export const refunds = sqliteTable(
	'refunds',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		key: text('key').notNull().unique(),
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id),
		date: text('date').notNull(),
		amount: integer('amount').notNull(),
		/** What left the bank for it, in pence; null: the same, for it was in pounds. */
		amountSterling: integer('amount_sterling'),
		/** What the payer said of the deduction that goes back with it; null: worked out. */
		withheldStated: integer('withheld_stated'),
		way: text('way', { enum: PAYMENT_WAYS }).notNull(),
		reference: text('reference').notNull().default(''),
		recordedAt: integer('recorded_at').notNull()
	},
	(table) => [index('refunds_by_document').on(table.documentId)]
);
