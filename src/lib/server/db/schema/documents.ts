// Drafts, issued documents and their lines and files, trials, and the paper trail.
import { sql } from 'drizzle-orm';
import {
	blob,
	index,
	integer,
	primaryKey,
	sqliteTable,
	text,
	unique,
	uniqueIndex,
	type AnySQLiteColumn
} from 'drizzle-orm/sqlite-core';
import { CURRENCIES } from '../../../core/money/currencies';
import type { Frozen } from '../../../core/documents/types';
import { TAX_POINT_RULES } from '../../../core/regimes/gb/taxPoints';
import { LINE_KINDS } from '../../../core/figures/types';
import { VAT_TREATMENTS } from '../../../core/regimes/types';
import type { Sheet } from '../../../core/sheet/types';
import { customers } from './customers';
import { workKinds } from './letterheads';

export const DOCUMENT_KINDS = ['invoice', 'creditNote'] as const;

/** What a document was made from, or because of. */
export const DOCUMENT_ORIGINS = [
	'typed',
	'copy',
	'startingPoint',
	'job',
	'jobPattern',
	'run',
	'stage',
	'retention',
	'repeat',
	'lateCharge',
	'cardFee',
	'correction',
	'replacement',
	'selfBilled',
	'deposit',
	'debitNote',
	/** Brought in from the books before, where it was issued. */
	'opening'
] as const;
export type DocumentOrigin = (typeof DOCUMENT_ORIGINS)[number];

/** In pounds as it is; in other money as it was frozen. */
const inPence = (column: string, frozen: string) =>
	sql.raw(
		`(case when currency = 'GBP' then ${column} else coalesce(json_extract(frozen, '$.exchange.${frozen}'), 0) end)`
	);

/** A trigger refuses update and delete of a row once its state is `issued`. Amounts in pence. */
export const documents = sqliteTable(
	'documents',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		kind: text('kind', { enum: DOCUMENT_KINDS }).notNull(),
		state: text('state', { enum: ['draft', 'discarded', 'issued'] }).notNull(),
		/** Names the press of the button that made it, so that a repeated press makes nothing. */
		key: text('key').notNull().unique(),
		customerId: integer('customer_id').references(() => customers.id, { onDelete: 'set null' }),
		/** Raised at each save of a draft: a second tab cannot overwrite what it has not seen. */
		version: integer('version').notNull().default(1),
		/** A draft exactly as typed. */
		sheet: text('sheet', { mode: 'json' }).$type<Sheet>().notNull(),
		origin: text('origin', { enum: DOCUMENT_ORIGINS }).notNull(),
		/**
		 * By its origin: the late invoice it charges for, the payment whose card fee it bills or which it is the deposit
		 * invoice of, the invoice it corrects.
		 */
		aboutId: integer('about_id'),
		correctsId: integer('corrects_id').references((): AnySQLiteColumn => documents.id),
		number: text('number'),
		/** The running number within the series, for telling gaps. */
		running: integer('running'),
		issueDate: text('issue_date'),
		/** Where it stands in lists: by issue date, drafts first. */
		sortDate: text('sort_date').notNull().default('9999-12-31'),
		taxPoint: text('tax_point'),
		dueDate: text('due_date'),
		/** The unguessable part of the pay page's address. */
		/** The hash of what was issued, lines and PDF included; null: issued before there were seals. */
		seal: text('seal'),
		token: text('token').unique(),
		/** All it was computed from, and the figures. */
		frozen: text('frozen', { mode: 'json' }).$type<Frozen>(),
		customerName: text('customer_name').notNull().default(''),
		/** The owner's own kind of work; how it was called when it was issued is frozen. */
		workKindId: integer('work_kind_id').references(() => workKinds.id),
		/** Amounts are whole minor units of it. */
		currency: text('currency', { enum: CURRENCIES }).notNull().default('GBP'),
		net: integer('net').notNull().default(0),
		vatCharged: integer('vat_charged').notNull().default(0),
		vatReverseCharged: integer('vat_reverse_charged').notNull().default(0),
		total: integer('total').notNull().default(0),
		/** The total in sterling, at the rate of the tax point. */
		totalSterling: integer('total_sterling').notNull().default(0),
		/** Net and VAT as the books have them, in pence. */
		netSterling: integer('net_sterling').generatedAlwaysAs(inPence('net', 'net')),
		vatChargedSterling: integer('vat_charged_sterling').generatedAlwaysAs(
			inPence('vat_charged', 'vatCharged')
		),
		/** Null where CIS does not apply. */
		deduction: integer('deduction'),
		createdAt: integer('created_at').notNull(),
		updatedAt: integer('updated_at').notNull(),
		issuedAt: integer('issued_at')
	},
	(table) => [
		uniqueIndex('documents_number')
			.on(table.kind, table.number)
			.where(sql`origin <> 'selfBilled'`),
		/** What a contractor wrote in our name has its number. */
		uniqueIndex('documents_self_billed')
			.on(table.customerId, table.number)
			.where(sql`origin = 'selfBilled'`),
		index('documents_by_state').on(table.state, table.updatedAt, table.id),
		index('documents_by_kind').on(table.kind, table.state, table.sortDate),
		index('documents_in_order').on(table.sortDate, table.id),
		index('documents_by_customer').on(table.customerId, table.sortDate, table.id),
		index('documents_by_corrected').on(table.correctsId),
		index('documents_by_origin').on(table.origin, table.aboutId)
	]
);

/** Labels that the owner put on documents: they may come and go after they are issued. */
export const documentLabels = sqliteTable(
	'document_labels',
	{
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id, { onDelete: 'cascade' }),
		label: text('label').notNull()
	},
	(table) => [
		primaryKey({ columns: [table.documentId, table.label] }),
		index('document_labels_by_label').on(table.label, table.documentId)
	]
);

/** How many rows there are of each kind and state, kept by triggers, so that nobody counts a hundred thousand. */
export const tallies = sqliteTable('tallies', {
	/** `invoice issued`, or `item paid` for what stands open and what is settled. */
	name: text('name').primaryKey(),
	n: integer('n').notNull()
});

/** The lines of an issued document, one row each, as they were computed. Amounts in pence. */
export const documentLines = sqliteTable(
	'document_lines',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id),
		position: integer('position').notNull(),
		kind: text('kind', { enum: LINE_KINDS }).notNull(),
		description: text('description').notNull(),
		quantity: text('quantity').notNull(),
		unit: text('unit').notNull(),
		unitPrice: text('unit_price').notNull(),
		vat: text('vat', { enum: VAT_TREATMENTS }),
		cost: integer('cost'),
		net: integer('net').notNull(),
		documentDiscount: integer('document_discount').notNull(),
		retention: integer('retention').notNull(),
		taxable: integer('taxable').notNull(),
		/** `taxable` without the VAT a price including VAT contains. */
		withoutVat: integer('without_vat').notNull().default(0),
		/** The job it bills, without a reference: jobs refer to documents, not the other way round. */
		jobId: integer('job_id'),
		/** The line's own tax point; null: the document's. */
		taxPoint: text('tax_point')
	},
	(table) => [
		unique('document_lines_position').on(table.documentId, table.position),
		index('document_lines_by_job').on(table.jobId)
	]
);

/** When what an issued document bills took place, a row for each day; pence. What VAT, journal and documents read. */
export const taxPoints = sqliteTable(
	'tax_points',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id),
		date: text('date').notNull(),
		rule: text('rule', { enum: TAX_POINT_RULES }).notNull(),
		because: text('because', { enum: ['payment', 'invoice', 'work'] }).notNull(),
		net: integer('net').notNull(),
		vatCharged: integer('vat_charged').notNull(),
		vatReverseCharged: integer('vat_reverse_charged').notNull(),
		/** Whether the seller was registered on that day. */
		vat: integer('vat', { mode: 'boolean' }).notNull()
	},
	(table) => [
		unique('tax_points_day').on(table.documentId, table.date),
		index('tax_points_by_date').on(table.date)
	]
);

export const documentFiles = sqliteTable('document_files', {
	documentId: integer('document_id')
		.primaryKey()
		.references(() => documents.id),
	name: text('name').notNull(),
	sha256: text('sha256').notNull(),
	content: blob('content', { mode: 'buffer' }).notNull()
});

/** A document sent to oneself: it has no number, no journal and no part in any figure. */
export const trials = sqliteTable('trials', {
	id: integer('id').primaryKey({ autoIncrement: true }),
	documentId: integer('document_id')
		.notNull()
		.references(() => documents.id, { onDelete: 'cascade' }),
	token: text('token').notNull().unique(),
	frozen: text('frozen', { mode: 'json' }).$type<Frozen>().notNull(),
	pdf: blob('pdf', { mode: 'buffer' }).notNull(),
	createdAt: integer('created_at').notNull(),
	paidAt: integer('paid_at')
});

/** Who did what to a document, when. Rows are only ever added. */
export const trail = sqliteTable(
	'trail',
	{
		id: integer('id').primaryKey({ autoIncrement: true }),
		documentId: integer('document_id')
			.notNull()
			.references(() => documents.id),
		at: integer('at').notNull(),
		who: text('who', { enum: ['you', 'customer', 'axiometer'] }).notNull(),
		/** Which of those who may sign in; null where nobody of them did it. */
		personId: integer('person_id'),
		what: text('what').notNull(),
		detail: text('detail').notNull().default('')
	},
	(table) => [index('trail_by_document').on(table.documentId, table.id)]
);
